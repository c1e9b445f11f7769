import { fileURLToPath } from 'node:url'
import { closeDatabase, database } from '../server/platform/db/connection'
import { settleOpenFloors } from '../server/classes/openFloors'
import { settleErasures } from '../server/privacy/erasureFile'
import { sealStored } from '../server/privacy/sealStored'
import { migrate } from '../server/platform/db/migrate'

await migrate(database(), fileURLToPath(new URL('../server/platform/db/migrations', import.meta.url)))
await sealStored(database())
await settleErasures(database(), process.env.DATA_FOLDER, new Date())
await settleOpenFloors(database())
await closeDatabase()
