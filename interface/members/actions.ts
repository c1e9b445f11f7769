'use server'
import { requireUser } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { addMember, LONGEST_NAME, membersLike, membersNamed, renameMember, type Member } from '@/server/members/members'
import { tidyName } from '@/server/members/name'
import { getStudio } from '@/server/studio/studio'

export type Added =
  | Readonly<{ outcome: 'added'; id: string }>
  | Readonly<{ outcome: 'refused' | 'sameName'; say: string }>
  /** An earlier try under this id was kept, with another spelling. */
  | Readonly<{ outcome: 'addedBefore'; say: string; as: string }>

const refused = (say: string): Added => ({ outcome: 'refused', say })
/** Names offered at once; a few letters more find the rest. */
const MOST_NAMES = 40

function checkedName(typed: unknown): Readonly<{ name: string }> | Added {
  if (typeof typed !== 'string') return refused('The request was cut short; try again.')
  const name = tidyName(typed)
  if (name === '') return refused('A member needs a name.')
  return name.length > LONGEST_NAME ? refused(`The name is longer than ${LONGEST_NAME} letters; shorten it.`) : { name }
}

/** Adds a member under an id the caller made. `anyway` adds a second one of the same name. */
export async function add(id: string, typed: string, anyway: boolean): Promise<Added> {
  const person = await requireUser()
  const checked = checkedName(typed)
  if (!('name' in checked)) return checked
  const { name } = checked
  if (!isId(id) || id.length !== 36) return refused('The request was cut short; try again.')
  const db = database()
  const studio = await getStudio(db)
  const same = (await membersNamed(db, studio.id, name)).filter((member) => member.id !== id)
  if (same.length > 0 && anyway !== true)
    return { outcome: 'sameName', say: `There is already a ${name}. Add another one of that name?` }
  const added = await addMember(db, { id, studioId: studio.id, name, at: new Date(), by: person.id })
  if (added.outcome === 'kept') return { outcome: 'added', id }
  return {
    outcome: 'addedBefore',
    as: added.name,
    say: `An earlier try added this member as ${added.name}. Correct the name to ${name}?`,
  }
}

/** Corrects the name under which an earlier try was kept. */
export async function rename(id: string, from: string, typed: string): Promise<Added> {
  await requireUser()
  const checked = checkedName(typed)
  if (!('name' in checked)) return checked
  if (!isId(id) || typeof from !== 'string') return refused('The request was cut short; try again.')
  return (await renameMember(database(), id, from, checked.name))
    ? { outcome: 'added', id }
    : refused('This member has another name by now; open their page.')
}

/** Members whose name holds every word typed, the first forty. */
export async function findMembers(typed: string): Promise<readonly Member[]> {
  await requireUser()
  const db = database()
  return membersLike(db, (await getStudio(db)).id, String(typed ?? '').slice(0, 100), MOST_NAMES)
}
