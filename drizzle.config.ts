import { defineConfig } from 'drizzle-kit'

export default defineConfig({
  dialect: 'mysql',
  schema: ['accounts', 'bikes', 'floor', 'riders', 'classes', 'register', 'memberPage', 'comfort', 'runs'].map(
    (name) => `./server/db/tables/${name}.ts`,
  ),
  out: './server/db/migrations',
})
