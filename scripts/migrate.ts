import { fileURLToPath } from 'node:url'
import { closeDatabase, database } from '../server/platform/db/connection'
import { settleOpenFloors } from '../server/classes/openFloors'
import { migrate } from '../server/platform/db/migrate'

await migrate(database(), fileURLToPath(new URL('../server/platform/db/migrations', import.meta.url)))
await settleOpenFloors(database())
await closeDatabase()
