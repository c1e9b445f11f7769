'use server'
import { headers } from 'next/headers'
import { evidenceIssues, requestIssues } from '@/core/operations/dispatch'
import { feltFrom, oneLine, type HomeMeasures, type MemberMessageBody } from '@/core/memberPage/message'
import { MEMBER_REFUSAL_TEXT } from '@/core/messages/memberPage'
import { listTypes } from '@/server/bikes/versions'
import { database } from '@/server/db/connection'
import { addOwnComplaint } from '@/server/comfort/complaints'
import { rateTrial } from '@/server/comfort/trialChanges'
import { isId, textOf } from '@/server/ids'
import type { LinkOwner } from '@/server/memberPage/links'
import { addMessage } from '@/server/memberPage/messages'
import { openFrom } from '@/server/memberPage/pageLimits'
import { readComplaint } from '../comfort/readComplaint'
import type { ActionResult } from '../shared/actionResult'

const refused = (why: keyof typeof MEMBER_REFUSAL_TEXT) =>
  ({ outcome: 'refused', say: MEMBER_REFUSAL_TEXT[why] }) as const

/** Whose page this is, for as long as the link opens; counted against who asks. */
async function opened(token: unknown): Promise<LinkOwner | null> {
  const peer = (await headers()).get('x-forwarded-for') ?? 'unknown'
  return openFrom(database(), peer, textOf(token), 'write', new Date())
}

async function keep(
  token: string,
  id: string,
  kind: 'felt' | 'recheck' | 'home',
  bodyOf: (owner: LinkOwner) => Promise<MemberMessageBody | null>,
): Promise<ActionResult> {
  const owner = await opened(token)
  if (!owner) return refused('ended')
  const body = isId(id) ? await bodyOf(owner) : null
  if (!body) return refused('malformed')
  const { outcome } = await addMessage(database(), owner, { id, kind, body }, new Date())
  return outcome === 'kept' ? { outcome } : refused(outcome === 'tooMany' ? outcome : 'malformed')
}

/** How a ride felt. */
export async function sendFelt(token: string, id: string, sent: unknown): Promise<ActionResult> {
  return keep(token, id, 'felt', async () => feltFrom(sent))
}

/** Asks for somebody to look again. */
export async function askRecheck(token: string, id: string, line: unknown): Promise<ActionResult> {
  return keep(token, id, 'recheck', async () => ({ line: oneLine(line) }))
}

/** What somebody says of themselves at home: of these kinds and no others. */
const HOME_KINDS = ['rider', 'stature', 'inseam', 'segment']
const MAX_ROWS = 6

/** Keeps what was answered and measured at home. */
export async function sendHome(token: string, id: string, sent: HomeMeasures): Promise<ActionResult> {
  return keep(token, id, 'home', async ({ studioId }) => {
    const { evidence, ownBike } = (sent ?? {}) as Partial<HomeMeasures>
    const known =
      Array.isArray(evidence) &&
      evidence.length <= MAX_ROWS &&
      evidence.every((row) => HOME_KINDS.includes(row?.kind) && evidenceIssues(row).length === 0)
    if (!known || (evidence.length === 0 && !ownBike)) return null
    if (!ownBike) return { evidence }
    const [type] = await listTypes(database(), { studioId, userId: '', role: 'desk' })
    if (!type || requestIssues('translate', { from: ownBike, to: { bikeType: type.bikeType } }).length > 0) return null
    const { lengths, crankMm, noseAheadMm } = ownBike
    return { evidence, ownBike: { lengths, crankMm, noseAheadMm } }
  })
}

/** Something that bothers the member. */
export async function sendComplaint(token: string, id: string, sent: unknown): Promise<ActionResult> {
  const owner = await opened(token)
  if (!owner) return refused('ended')
  const said = isId(id) ? readComplaint(sent) : null
  if (!said) return refused('malformed')
  const { outcome } = await addOwnComplaint(database(), owner, { id, ...said }, new Date())
  return outcome === 'kept' ? { outcome } : refused(outcome === 'tooMany' ? outcome : 'malformed')
}

/** How it is during a trial of the member's own. */
export async function rateOwnTrial(token: string, id: string, trialId: string, rating: number): Promise<ActionResult> {
  const owner = await opened(token)
  if (!owner) return refused('ended')
  const readable = isId(id) && isId(trialId) && Number.isInteger(rating) && rating >= 0 && rating <= 10
  if (!readable) return refused('malformed')
  const { outcome } = await rateTrial(database(), owner, { id, trialId, rating }, new Date())
  if (outcome === 'kept') return { outcome }
  return refused(outcome === 'ended' ? 'trialEnded' : 'malformed')
}
