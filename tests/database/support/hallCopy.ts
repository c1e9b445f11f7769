import { openEmptyStudio, type EmptyStudio } from '@/scripts/support/emptyStudio'
import { archiveText } from '@/server/files/archiveExport'
import { importArchive } from '@/server/files/archiveImport'
import { storeUpload } from '@/server/files/uploads'
import { database } from '@/server/platform/db/connection'

/** The hall's records in a database of its own, where a test may erase and delete: other tests need the hall. */
export async function openHallCopy(name: string): Promise<EmptyStudio> {
  const copy = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_${name}_${process.pid}`)
  let text = ''
  for await (const piece of archiveText(database(), { studioId: 'netloft-hall', userId: '', role: 'manager' }))
    text += piece
  const stored = await storeUpload(copy.scope, new Blob([text]).stream() as ReadableStream<Uint8Array>, null)
  if (stored.outcome !== 'kept') throw new Error(stored.why)
  const asked = { upload: stored.upload, progress: () => undefined, signal: new AbortController().signal }
  const { outcome } = await importArchive(copy.db, copy.scope, asked)
  if (outcome !== 'kept') throw new Error(outcome)
  return copy
}
