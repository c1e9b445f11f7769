/**
 * Before a production start: refuses a database that is newer than the program or has the demo's passwords, then
 * migrates it, seals its health words and erases again whom a restore brought back, under a lock, so that a second
 * start waits. Prints one line of JSON: `{ isEmpty }`, whether nobody has an account yet, or `{ refusal }`, a sentence.
 */
import { sql } from 'drizzle-orm'
import { readMigrationFiles } from 'drizzle-orm/migrator'
import { fileURLToPath } from 'node:url'
import { hasAccounts } from '../server/platform/accounts/accounts'
import { settleOpenFloors } from '../server/classes/openFloors'
import { closeDatabase, connectionPool, database } from '../server/platform/db/connection'
import { errnoOf } from '../server/platform/db/errors'
import { SealError } from '../server/platform/sealing/keys'
import { settleErasures } from '../server/privacy/erasureFile'
import { sealStored } from '../server/privacy/sealStored'
import { migrate, NO_SUCH_TABLE } from '../server/platform/db/migrate'
import { PEOPLE } from './netloftHall'
import { accountsThatOpen } from './support/demoAccounts'

/** The oldest MariaDB this product is tested with. */
const OLDEST = [10, 6] as const
const PUT_BACK =
  'Put back the file health-key of this studio’s data folder: without it nobody can read the health words in this ' +
  'database. Nothing was changed.'
const LOCK = 'yielding-saddle-start'
/** Longest wait for another start that migrates, s. */
const LOCK_S = 600
const folder = fileURLToPath(new URL('../server/platform/db/migrations', import.meta.url))

const refusal = await prepared()
console.log(JSON.stringify(refusal ? { refusal } : { isEmpty: !(await hasAccounts(database())) }))
await closeDatabase()

async function prepared(): Promise<string | null> {
  const db = database()
  const [rows] = (await db.execute(sql`SELECT VERSION() AS version`)) as unknown as [{ version: string }[]]
  const { version } = rows[0]
  const [major, minor] = version.split('.').map(Number)
  if (!/mariadb/i.test(version) || major < OLDEST[0] || (major === OLDEST[0] && minor < OLDEST[1]))
    return `The database is ${version}; MariaDB ${OLDEST.join('.')} or later is needed.`
  // A lock belongs to its connection: this one stays open until the migrations end.
  const held = await connectionPool().getConnection()
  try {
    const [locks] = (await held.query('SELECT GET_LOCK(?, ?) AS taken', [LOCK, LOCK_S])) as unknown as [
      { taken: number | null }[],
    ]
    if (locks[0].taken !== 1) return 'Another start migrates this database. Wait until it is open, then start again.'
    if (await isNewer()) return 'The database was written by a newer version of this program. Update the program first.'
    await migrate(db, folder)
    await sealStored(db)
    await settleErasures(db, process.env.DATA_FOLDER, new Date())
    await settleOpenFloors(db)
    await held.query('SELECT RELEASE_LOCK(?)', [LOCK])
  } catch (error) {
    if (error instanceof SealError) return `${error.message}. ${PUT_BACK}`
    throw error
  } finally {
    held.release()
  }
  const open = await accountsThatOpen(db, PEOPLE)
  return open.length > 0
    ? `The demo’s password still opens ${open.map(({ username }) => username).join(', ')}. Everybody can read it; ` +
        'change these passwords in the demo, or begin with an empty database.'
    : null
}

/** Whether a migration was carried out that this program does not have. */
async function isNewer(): Promise<boolean> {
  const known = new Set(readMigrationFiles({ migrationsFolder: folder }).map(({ hash }) => hash))
  try {
    const [rows] = (await database().execute(sql`SELECT hash FROM __migration_progress`)) as unknown as [
      { hash: string }[],
    ]
    return rows.some(({ hash }) => !known.has(hash))
  } catch (error) {
    if (errnoOf(error) === NO_SUCH_TABLE) return false
    throw error
  }
}
