import { drizzle } from 'drizzle-orm/mysql2'
import { join } from 'node:path'
import { createPool } from 'mysql2/promise'
import type { Scope } from '../../server/platform/accounts/scope'
import type { Database } from '../../server/platform/db/connection'
import { migrate } from '../../server/platform/db/migrate'
import { studio, user } from '../../server/platform/accounts/tables'

/** A second installation on the same server, with an empty studio and a manager of its own. */
export type EmptyStudio = Readonly<{ db: Database; scope: Scope; close: () => Promise<void> }>

/** Creates it in a database of this name beside the one of `url`; closing it drops it. */
export async function openEmptyStudio(url: string, name: string): Promise<EmptyStudio> {
  const scope: Scope = { studioId: 'far-hall', userId: 'far-manager', role: 'manager' }
  const root = createPool({ uri: url, timezone: 'Z' })
  await root.query(`DROP DATABASE IF EXISTS ${name}`)
  await root.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
  await root.end()
  const uri = new URL(url)
  uri.pathname = `/${name}`
  const pool = createPool({ uri: uri.toString(), timezone: 'Z', charset: 'utf8mb4_unicode_ci' })
  const db = drizzle(pool)
  await migrate(db, join(process.cwd(), 'server/platform/db/migrations'))
  await db
    .insert(studio)
    .values({ id: scope.studioId, name: 'Far Hall', place: 'Nowhere', timeZone: 'UTC', school: {} })
  await db.insert(user).values({
    id: scope.userId,
    name: 'Far Manager',
    email: 'far@far.example',
    studioId: scope.studioId,
    role: 'manager',
  })
  const close = async () => {
    await pool.query(`DROP DATABASE IF EXISTS ${name}`)
    await pool.end()
  }
  return { db, scope, close }
}
