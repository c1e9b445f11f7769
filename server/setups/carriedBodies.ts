import { and, desc, eq } from 'drizzle-orm'
import type { CarriedBody } from '../../core/setups/recommend/history/riderHistory'
import type { Evidence } from '../../core/riders/evidence/registry'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { riderFile, type TakenFile } from './tables'

const DAY_MS = 86_400_000
/** A rider with more files is none. */
const MAX_FILES = 50

/** A file as it was taken, with its age. */
export type StoredRiderFile = Readonly<{
  id: string
  hash: string
  content: TakenFile
  isMeasured: boolean
  agoDays: number
}>

/** The files a member brought along, the one issued last first. */
export async function listRiderFiles(
  db: DbExecutor,
  { studioId }: Pick<Scope, 'studioId'>,
  memberId: string,
  now: Date,
): Promise<StoredRiderFile[]> {
  const found = await db
    .select({
      id: riderFile.id,
      hash: riderFile.hash,
      content: riderFile.content,
      isMeasured: riderFile.isMeasured,
      issuedAt: riderFile.issuedAt,
    })
    .from(riderFile)
    .where(and(eq(riderFile.memberId, memberId), eq(riderFile.studioId, studioId)))
    .orderBy(desc(riderFile.issuedAt), desc(riderFile.createdAt))
    .limit(MAX_FILES)
  return found.map(({ issuedAt, ...file }) => ({
    ...file,
    agoDays: Math.max(0, (now.getTime() - issuedAt.getTime()) / DAY_MS),
  }))
}

/** What another studio believed of a member's body, by the latest file that tells it; undefined without one. */
export async function carriedBodyOf(
  db: DbExecutor,
  scope: Pick<Scope, 'studioId'>,
  memberId: string,
  now: Date,
): Promise<CarriedBody | undefined> {
  const file = (await listRiderFiles(db, scope, memberId, now)).find(({ content }) => content.body !== null)
  return file && { belief: file.content.body!, agoDays: file.agoDays }
}

/** The posture a member wished for at another studio, as an answer of theirs; null without one. */
export async function carriedWishOf(
  db: DbExecutor,
  scope: Pick<Scope, 'studioId'>,
  memberId: string,
  now: Date,
): Promise<Evidence | null> {
  const file = (await listRiderFiles(db, scope, memberId, now)).find(({ content }) => content.wish !== null)
  return file ? { kind: 'wish', posture: file.content.wish! } : null
}
