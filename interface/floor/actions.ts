'use server'
import { REGIONS, signNamed } from '@/core/watch/signs'
import { signedIn } from '@/server/accounts/session'
import { bikeById } from '@/server/bikes/bikes'
import { database, together } from '@/server/db/connection'
import { memberById } from '@/server/members/members'
import { makeNote, seat, withdrawNote, type Side } from '@/server/notes/notes'
import { studioDay } from '@/server/studio/day'
import { theStudio } from '@/server/studio/studio'
import { isId } from '../shared/ids'

export type Told = Readonly<{ outcome: 'kept' }> | Readonly<{ outcome: 'refused'; say: string }>


/** Says who sits on a bike until midnight, studio time; null frees it. */
export async function sit(id: string, bikeId: string, memberId: string | null): Promise<Told> {
  const person = await signedIn()
  const db = database()
  const bike = isId(id) && isId(bikeId) ? await bikeById(db, bikeId) : null
  if (!bike) return { outcome: 'refused', say: 'this bike does not exist' }
  if (bike.openFaults > 0 && memberId !== null) return { outcome: 'refused', say: `bike ${bike.number} is out of use until its fault is mended` }
  if (memberId !== null && (!isId(memberId) || !(await memberById(db, memberId)))) return { outcome: 'refused', say: 'this member does not exist' }
  const now = new Date()
  const { timeZone } = await theStudio(db)
  await together(db, (tx) => seat(tx, { id, bikeId, memberId, day: studioDay(now, timeZone), at: now, by: person.id }))
  return { outcome: 'kept' }
}

/** Keeps what was seen of a rider. Sent again under the same id it changes nothing. */
export async function note(id: string, memberId: string, bikeId: string, sign: string, side: Side): Promise<Told> {
  const person = await signedIn()
  const known = signNamed(sign)
  if (!known || !REGIONS.includes(known.region) || !['left', 'right', 'both'].includes(side)) return { outcome: 'refused', say: 'this sign is not known' }
  const db = database()
  if (!isId(id) || !isId(memberId) || !(await memberById(db, memberId)) || !isId(bikeId) || !(await bikeById(db, bikeId)))
    return { outcome: 'refused', say: 'this rider or bike does not exist' }
  await makeNote(db, { id, memberId, bikeId, region: known.region, sign, side, at: new Date(), by: person.id })
  return { outcome: 'kept' }
}

/** Takes a note back. */
export async function unnote(id: string): Promise<Told> {
  await signedIn()
  if (isId(id)) await withdrawNote(database(), id, new Date())
  return { outcome: 'kept' }
}
