import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { listKnownStudios, printOf, publicKeyOf, type KnownStudio } from '../../studio/studioKeys'
import { getStudio } from '../../studio/studio'

/** The page of files: the studio's own print, and the studios whose files it takes as measured. */
export type FilesPage = Readonly<{ print: string; key: string; known: readonly KnownStudio[]; timeZone: string }>

export async function filesPage(db: DbExecutor, scope: Scope, now: Date): Promise<FilesPage> {
  const key = await publicKeyOf(db, scope, now)
  const { timeZone } = await getStudio(db, scope)
  return { key, print: printOf(key), known: await listKnownStudios(db, scope), timeZone }
}
