import { hash, verify } from '@node-rs/argon2'
import { betterAuth } from 'better-auth'
import { drizzleAdapter } from 'better-auth/adapters/drizzle'
import { nextCookies } from 'better-auth/next-js'
import { username } from 'better-auth/plugins'
import { database } from '../db/connection'
import { account, rateLimit, session, user, verification } from '../db/schema'

/** Argon2id with the parameters OWASP's password storage sheet names (19 MiB, two passes); from memory. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const

export const hashPassword = (password: string): Promise<string> => hash(password, ARGON)

let made: ReturnType<typeof make> | undefined

/** Sign-in: sessions in the database, by username; nobody can sign themselves up. Made at first use. */
export const auth = () => (made ??= make())

function make() {
  return betterAuth({
    database: drizzleAdapter(database(), { provider: 'mysql', schema: { user, session, account, verification, rateLimit } }),
    secret: process.env.BETTER_AUTH_SECRET,
    baseURL: process.env.BETTER_AUTH_URL,
    // Some type the machine's name instead of its address.
    trustedOrigins: process.env.BETTER_AUTH_URL ? [process.env.BETTER_AUTH_URL.replace('127.0.0.1', 'localhost')] : [],
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      password: { hash: hashPassword, verify: ({ hash: stored, password }) => verify(stored, password) },
    },
    session: { expiresIn: 60 * 60 * 24 * 14, updateAge: 60 * 60 * 24 },
    rateLimit: { enabled: true, storage: 'database' },
    telemetry: { enabled: false },
    plugins: [username(), nextCookies()],
  })
}
