import { formatLimit } from '@/core/messages/riders/limits'
import type { FileContents } from '@/server/files/riderFile/make'

/** What a member may put into their own file, in words. */
export type TakeText = Readonly<{
  sets: number
  hasBody: boolean
  wish: string | null
  limits: readonly Readonly<{ id: string; text: string }>[]
}>

/** `today`: YYYY-MM-DD on the studio's clock. */
export const takeProps = ({ sets, hasBody, wish, limits }: FileContents, today: string): TakeText => ({
  sets,
  hasBody,
  wish: wish ?? null,
  limits: limits.map(({ id, limit }) => ({ id, text: formatLimit(limit, today) })),
})
