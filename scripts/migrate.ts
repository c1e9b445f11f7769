import { fileURLToPath } from 'node:url'
import { closeDatabase, database } from '../server/db/connection'
import { settleOpenFloors } from '../server/classes/openFloors'
import { migrate } from '../server/db/migrate'

await migrate(database(), fileURLToPath(new URL('../server/db/migrations', import.meta.url)))
await settleOpenFloors(database())
await closeDatabase()
