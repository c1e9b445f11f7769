import { bigint, boolean, index, int, json, mysqlEnum, mysqlTable, text, varchar } from 'drizzle-orm/mysql-core'
import type { Costs } from '../../../core/setups/recommend/request/questionCosts'
import type { CareIntervals } from '../../../core/bikes/care/care'
import type { Retention } from '../../../core/riders/retention/retention'
import type { School } from '../../../core/base/school/school'
import { ROLES, type Role } from '../db/roles'
import { id, moment, now, reference } from '../db/columns'

export const studio = mysqlTable('studio', {
  id: id(),
  name: varchar('name', { length: 120 }).notNull(),
  place: varchar('place', { length: 120 }).notNull(),
  timeZone: varchar('time_zone', { length: 60 }).notNull(),
  school: json('school').$type<Partial<School>>().notNull(),
  /** Seconds of a check or a dismount, where the studio sets others than the product. */
  costs: json('costs').$type<Costs>(),
  /** Whether finished set-ups move what is believed of riders before one is looked at. */
  learns: boolean('learns').notNull().default(true),
  /** The studio's own words to a referred rider; null for the product's. */
  referral: text('referral'),
  /** Roles whose people must have a second factor; null for none. */
  secondFactorFor: json('second_factor_for').$type<Role[]>(),
  /** Whether riders may set a machine up alone by its code. */
  ridersAlone: boolean('riders_alone').notNull().default(true),
  /** Months after which notes, complaints and sets are deleted; null for no limit. */
  retention: json('retention').$type<Retention>(),
  /** Intervals of care that differ from the usual ones, by part; null for none. */
  careIntervals: json('care_intervals').$type<CareIntervals>(),
})

// The tables and names the sign-in library expects. All but the studio and the role belong to it.
export const user = mysqlTable('user', {
  id: id(),
  name: varchar('name', { length: 120 }).notNull(),
  email: varchar('email', { length: 190 }).notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  username: varchar('username', { length: 60 }).unique(),
  displayUsername: varchar('display_username', { length: 60 }),
  /** The one studio this person works for, and what they may do there. */
  studioId: reference('studio_id').references(() => studio.id),
  role: mysqlEnum('role', ROLES).notNull().default('instructor'),
  /** Another program, which acts by keys and never signs in. */
  isProgram: boolean('is_program').notNull().default(false),
  /** When their access ended; the name stays beside what they did. */
  endedAt: moment('ended_at'),
  twoFactorEnabled: boolean('two_factor_enabled').notNull().default(false),
  /** Their role must have a second factor: without one they do nothing but turn it on. */
  secondFactorDue: boolean('second_factor_due').notNull().default(false),
  createdAt: moment('created_at').notNull().default(now),
  updatedAt: moment('updated_at').notNull().default(now),
})

export const session = mysqlTable('session', {
  id: id(),
  token: varchar('token', { length: 190 }).notNull().unique(),
  userId: reference('user_id')
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  expiresAt: moment('expires_at').notNull(),
  ipAddress: varchar('ip_address', { length: 60 }),
  userAgent: text('user_agent'),
  /** Of a session by PIN: its tablet, the last touch of the person, and after how many minutes without one it ends. */
  tabletId: reference('tablet_id'),
  touchedAt: moment('touched_at'),
  idleMinutes: int('idle_minutes'),
  /** Proven by a passkey, which is two factors in one. */
  byPasskey: boolean('by_passkey').notNull().default(false),
  createdAt: moment('created_at').notNull().default(now),
  updatedAt: moment('updated_at').notNull().default(now),
})

export const account = mysqlTable('account', {
  id: id(),
  accountId: varchar('account_id', { length: 190 }).notNull(),
  providerId: varchar('provider_id', { length: 60 }).notNull(),
  userId: reference('user_id')
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  accessToken: text('access_token'),
  refreshToken: text('refresh_token'),
  idToken: text('id_token'),
  accessTokenExpiresAt: moment('access_token_expires_at'),
  refreshTokenExpiresAt: moment('refresh_token_expires_at'),
  scope: text('scope'),
  password: text('password'),
  createdAt: moment('created_at').notNull().default(now),
  updatedAt: moment('updated_at').notNull().default(now),
})

export const verification = mysqlTable('verification', {
  id: id(),
  identifier: varchar('identifier', { length: 190 }).notNull(),
  value: text('value').notNull(),
  expiresAt: moment('expires_at').notNull(),
  createdAt: moment('created_at').notNull().default(now),
  updatedAt: moment('updated_at').notNull().default(now),
})

/** The secret of a person's authenticator and their recovery codes, both encrypted by the sign-in library. */
export const twoFactor = mysqlTable('two_factor', {
  id: id(),
  secret: text('secret').notNull(),
  backupCodes: text('backup_codes').notNull(),
  userId: reference('user_id')
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  verified: boolean('verified').notNull().default(true),
  failedVerificationCount: int('failed_verification_count').notNull().default(0),
  lockedUntil: moment('locked_until'),
})

/** Passkeys: public keys alone; the names are those the sign-in library's plugin expects. */
export const passkey = mysqlTable('passkey', {
  id: id(),
  name: varchar('name', { length: 120 }),
  publicKey: text('public_key').notNull(),
  userId: reference('user_id')
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  credentialID: varchar('credential_id', { length: 512 }).notNull().unique(),
  counter: int('counter').notNull(),
  deviceType: varchar('device_type', { length: 32 }).notNull(),
  backedUp: boolean('backed_up').notNull(),
  transports: varchar('transports', { length: 190 }),
  createdAt: moment('created_at'),
  aaguid: varchar('aaguid', { length: 36 }),
})

/** Secrets of an account besides the sign-in library's. */
export const userSecret = mysqlTable('user_secret', {
  userId: reference('user_id')
    .primaryKey()
    .references(() => user.id, { onDelete: 'cascade' }),
  /** 32 random bytes, base64: locks what waits on the person's devices. */
  deviceKey: varchar('device_key', { length: 44 }),
  /** Argon2id of the PIN, with the installation's secret. */
  pinHash: text('pin_hash'),
})

/** Tablets that several people share. The database stores the fingerprint of a tablet's token alone. */
export const tablet = mysqlTable(
  'tablet',
  {
    id: id(),
    studioId: reference('studio_id')
      .notNull()
      .references(() => studio.id),
    name: varchar('name', { length: 60 }).notNull(),
    /** The room it hangs in. */
    roomId: reference('room_id'),
    tokenHash: varchar('token_hash', { length: 64 }).notNull().unique(),
    /** Minutes without a touch after which it locks. */
    idleMinutes: int('idle_minutes').notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by')
      .notNull()
      .references(() => user.id),
    /** Last sign-in by PIN. */
    usedAt: moment('used_at'),
    endedAt: moment('ended_at'),
  },
  (t) => [index('tablet_studio').on(t.studioId, t.endedAt)],
)

/** Tries to sign in that failed, per account and per peer; written by the rate-limiting library. */
export const signInAttempts = mysqlTable('sign_in_attempts', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: int('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number', unsigned: true }),
})

export const rateLimit = mysqlTable('rate_limit', {
  id: id(),
  key: varchar('key', { length: 190 }).notNull().unique(),
  count: int('count').notNull(),
  lastRequest: bigint('last_request', { mode: 'number' }).notNull(),
})

/**
 * One-time links to an account: a new one with a role, or a new password for the account `userId`. The database stores
 * the token's fingerprint alone.
 */
export const invitation = mysqlTable(
  'invitation',
  {
    id: id(),
    studioId: reference('studio_id')
      .notNull()
      .references(() => studio.id),
    tokenHash: varchar('token_hash', { length: 64 }).notNull().unique(),
    role: mysqlEnum('role', ROLES).notNull(),
    userId: reference('user_id').references(() => user.id),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by')
      .notNull()
      .references(() => user.id),
    expiresAt: moment('expires_at').notNull(),
    usedAt: moment('used_at'),
    revokedAt: moment('revoked_at'),
  },
  (t) => [index('invitation_studio').on(t.studioId, t.expiresAt)],
)

export const KEY_SCOPES = ['operations', 'desk', 'instructor'] as const

/**
 * Keys of other programs. A program acts as the account `userId`, which cannot sign in. The database
 * has the key's fingerprint alone.
 */
export const apiKey = mysqlTable(
  'api_key',
  {
    id: id(),
    studioId: reference('studio_id')
      .notNull()
      .references(() => studio.id),
    userId: reference('user_id')
      .notNull()
      .references(() => user.id),
    /** SHA-256 of the key, hexadecimal. */
    keyHash: varchar('key_hash', { length: 64 }).notNull().unique(),
    scope: mysqlEnum('scope', KEY_SCOPES).notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by')
      .notNull()
      .references(() => user.id),
    /** To the minute. */
    usedAt: moment('used_at'),
    revokedAt: moment('revoked_at'),
  },
  (t) => [index('api_key_studio').on(t.studioId, t.createdAt)],
)

/** The studio a row belongs to; every table has this column. */
export const studioId = () =>
  reference('studio_id')
    .notNull()
    .references(() => studio.id)

/** Who wrote a row. */
export const createdBy = () =>
  reference('created_by')
    .notNull()
    .references(() => user.id)
