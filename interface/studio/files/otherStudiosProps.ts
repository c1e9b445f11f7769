import { formatDate } from '@/core/messages/words/dates'
import type { FilesPage } from '@/server/pages/studio/files'
import type { OtherStudiosProps } from './OtherStudios'

/** The studios that are known, in words. */
export const otherStudiosProps = ({ key, print, known, timeZone }: FilesPage): OtherStudiosProps => ({
  ownKey: key,
  print,
  known: known.map(({ since, ...studio }) => ({ ...studio, since: formatDate(since, timeZone) })),
})
