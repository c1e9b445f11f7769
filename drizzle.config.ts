import { defineConfig } from 'drizzle-kit'

export default defineConfig({
  dialect: 'mysql',
  schema: './server/**/tables.ts',
  out: './server/platform/db/migrations',
})
