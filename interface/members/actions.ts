'use server'
import { signedIn } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { addMember, LONGEST_NAME, membersNamed } from '@/server/members/members'
import { theStudio } from '@/server/studio/studio'

export type Added = Readonly<{ outcome: 'added'; id: string }> | Readonly<{ outcome: 'refused' | 'sameName'; say: string }>

/** Adds a member under an id the caller made. `anyway` adds a second one of the same name. */
export async function add(id: string, typed: string, anyway: boolean): Promise<Added> {
  const person = await signedIn()
  const name = typed.trim().replace(/\s+/g, ' ')
  if (name === '') return { outcome: 'refused', say: 'A member needs a name.' }
  if (name.length > LONGEST_NAME) return { outcome: 'refused', say: `The name is longer than ${LONGEST_NAME} letters; shorten it.` }
  if (!/^[0-9a-f-]{36}$/.test(id)) return { outcome: 'refused', say: 'The request was cut short; try again.' }
  const db = database()
  const studio = await theStudio(db)
  const same = (await membersNamed(db, studio.id, name)).filter((member) => member.id !== id)
  if (same.length > 0 && !anyway) return { outcome: 'sameName', say: `There is already a ${name}. Add another one of that name?` }
  await addMember(db, { id, studioId: studio.id, name, at: new Date(), by: person.id })
  return { outcome: 'added', id }
}
