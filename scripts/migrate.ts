import { migrate } from 'drizzle-orm/mysql2/migrator'
import { closeDatabase, database } from '../server/db/connection'

await migrate(database(), { migrationsFolder: new URL('../server/db/migrations', import.meta.url).pathname })
await closeDatabase()
