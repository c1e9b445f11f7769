import { eq } from 'drizzle-orm'
import { limitIssue } from '../../../core/riders/limits/limits'
import type { Scope } from '../../platform/accounts/scope'
import { withTransaction, type Database } from '../../platform/db/connection'
import { sealRow } from '../../platform/sealing/sealed'
import { listTypes } from '../../bikes/versions'
import { giveConsent } from '../../riders/consent'
import { recordLimit, todayOf } from '../../riders/limits'
import { lockMember } from '../../comfort/trialChanges'
import { addMember } from '../../riders/members/members'
import { listRiderFiles } from '../../setups/carriedBodies'
import { currentEntries, recordEntry } from '../../setups/register'
import { riderFile, type TakenFile } from '../../setups/tables'
import { checkFile, proposalsOf, type CheckedFile, type SetProposal } from './read'

/** What somebody takes of a file, with the rider's consent for what is about their health. */
export type BringInput = Readonly<{
  text: string
  /** The command's id: of the record of the file. */
  id: string
  memberId: string
  /** The name of a new member; null for one who is here. */
  newName: string | null
  sets: readonly Readonly<{ id: string; setId: string; lineId: string }>[]
  body: boolean
  wish: boolean
  /** Indexes of the file's limits, each with the id of its record here. */
  limits: readonly Readonly<{ id: string; index: number }>[]
}>
/** `told`: more than numbers was asked of a file that is only told; `gone`: no such member, type or set. */
export type BringResult =
  Readonly<{ outcome: 'kept'; recorded: number }> | Readonly<{ outcome: 'gone' | 'idTaken' | 'told' | 'unreadable' }>

/** Takes a file, all that was chosen or nothing. Taken again it changes nothing. */
export async function bringRiderFile(db: Database, scope: Scope, input: BringInput, now: Date): Promise<BringResult> {
  const checked = await checkFile(db, scope, input.text, now)
  if ('outcome' in checked) return { outcome: 'unreadable' }
  const { standing, content } = checked
  const isMeasured = standing.standing === 'measured'
  const asksMore = input.body || input.wish || input.limits.length > 0
  if (asksMore && !isMeasured) return { outcome: 'told' }
  const proposals = await proposalsOf(db, scope, checked, input.newName === null ? input.memberId : null)
  const chosen = input.sets.map(({ id, setId, lineId }) => {
    const found = proposals.find((one) => one.setId === setId && one.lineId === lineId)
    return found && { id, ...found }
  })
  if (chosen.includes(undefined)) return { outcome: 'gone' }
  const types = new Map((await listTypes(db, scope)).map(({ lineId, id }) => [lineId, id]))
  try {
    return await withTransaction(db, async (tx) => {
      const own = tx as Database
      if (input.newName !== null) {
        const { outcome } = await addMember(own, scope, { id: input.memberId, name: input.newName }, now)
        if (outcome !== 'kept') throw new NothingBrought('idTaken')
      }
      if (!(await lockMember(tx, scope, input.memberId))) throw new NothingBrought('gone')
      // Somebody else may have taken the same file meanwhile.
      const current = await currentEntries(tx, scope, [input.memberId])
      const isThere = ({ setId, lineId }: SetProposal) =>
        current.some((entry) => entry.lineId === lineId && entry.basis.carried?.setId === setId)
      let recorded = 0
      for (const one of chosen) {
        if (one!.isHere || isThere(one!)) continue
        const { outcome } = await recordEntry(
          tx,
          scope,
          {
            id: one!.id,
            memberId: input.memberId,
            lineId: one!.lineId,
            typeId: types.get(one!.lineId)!,
            purpose: one!.purpose,
            source: 'carried',
            certainty: one!.certainty,
            marks: one!.marks,
            basis: { carried: { studio: content.studio.name, setId: one!.setId } },
          },
          now,
        )
        if (outcome !== 'kept') throw new NothingBrought(outcome)
        recorded += 1
      }
      await takeBesides(own, scope, input, checked, now)
      return { outcome: 'kept' as const, recorded }
    })
  } catch (error) {
    if (error instanceof NothingBrought) return { outcome: error.outcome }
    throw error
  }
}

/** Takes the transaction back. */
class NothingBrought extends Error {
  constructor(readonly outcome: 'gone' | 'idTaken') {
    super(outcome)
  }
}

/** Records the file with what the rider let the studio take; limits that were taken before are not taken again. */
async function takeBesides(
  tx: Database,
  scope: Scope,
  input: BringInput,
  { content, standing, hash }: CheckedFile,
  now: Date,
): Promise<void> {
  const { memberId } = input
  const full = 'signature' in content ? content : null
  const before = (await listRiderFiles(tx, scope, memberId, now)).find((one) => one.hash === hash)
  const limits = input.limits.filter(({ index }) => !before?.content.limits.includes(index))
  const today = await todayOf(tx, scope, now)
  if (limits.length > 0) await giveConsent(tx, scope, memberId, 'spoken', now)
  for (const { id, index } of limits) {
    const limit = full?.limits?.[index]
    if (!limit || limitIssue(limit, today)) continue
    const { outcome } = await recordLimit(tx, scope, { id, memberId, limit }, now)
    if (outcome !== 'kept') throw new NothingBrought(outcome)
  }
  const taken: TakenFile = {
    studio: content.studio.name,
    sets: content.sets,
    body: (input.body && full?.body) || before?.content.body || null,
    wish: (input.wish && full?.wish) || before?.content.wish || null,
    limits: [...(before?.content.limits ?? []), ...limits.map(({ index }) => index)],
  }
  const { studioId, userId } = scope
  if (before) {
    await tx
      .update(riderFile)
      .set(sealRow(riderFile, studioId, { content: taken }))
      .where(eq(riderFile.id, before.id))
    return
  }
  const issuedAt = new Date(content.issuedAt)
  await tx.insert(riderFile).values(
    sealRow(riderFile, studioId, {
      id: input.id,
      studioId,
      memberId,
      hash,
      isMeasured: standing.standing === 'measured',
      content: taken,
      // The date of a file that is only told may be none.
      issuedAt: Number.isNaN(issuedAt.getTime()) ? now : issuedAt,
      createdAt: now,
      createdBy: userId,
    }),
  )
}
