import { after } from 'next/server'
import { database } from '../../platform/db/connection'
import { recordSeen, type Seer } from './record'
import { settleSoon } from './settle'

/**
 * Notes, once the page or file is sent, that somebody saw it (`what`: a key of `SAW_TEXT`), about a member or a class.
 */
export function seen(by: Seer, what: string, subject: string | null = null): void {
  after(async () => {
    await recordSeen(database(), by, what, subject, new Date())
    settleSoon(database(), by.studioId)
  })
}
