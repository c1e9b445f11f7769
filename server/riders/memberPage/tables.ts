import { index, mysqlEnum, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { MEMBER_MESSAGES, type MemberMessageBody } from '../../../core/riders/memberPage/message'
import { createdBy, studioId, user } from '../../platform/accounts/tables'
import { id, moment, reference } from '../../platform/db/columns'
import { sealed } from '../../platform/sealing/sealed'
import { member } from '../tables'

/** What a private link shows of its member. */
export const LINK_OPENS = ['everything', 'numbers'] as const

/** A private link to a member's own page. What it opens with is worked out from `id` and a secret, never stored. */
export const memberLink = mysqlTable(
  'member_link',
  {
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    /** SHA-256 of the token in the address, hexadecimal. */
    tokenHash: varchar('token_hash', { length: 64 }).notNull().unique(),
    /** `numbers`: made by somebody who may not see notes, so that it shows none either. */
    opens: mysqlEnum('opens', LINK_OPENS).notNull().default('everything'),
    expiresAt: moment('expires_at').notNull(),
    revokedAt: moment('revoked_at'),
    createdAt: moment('created_at').notNull(),
    createdBy: createdBy(),
  },
  (t) => [index('member_link_member').on(t.memberId, t.createdAt)],
)

/** A message from a member's own page; it may contain health data. */
export const memberMessage = mysqlTable(
  'member_message',
  {
    id: id(),
    studioId: studioId(),
    memberId: reference('member_id')
      .notNull()
      .references(() => member.id),
    /** The link it came by; links open pages, and go into no archive. */
    linkId: reference('link_id').references(() => memberLink.id),
    kind: mysqlEnum('kind', MEMBER_MESSAGES).notNull(),
    body: sealed<MemberMessageBody>('member_message', 'body', { type: ['object', 'array'] }).notNull(),
    createdAt: moment('created_at').notNull(),
    handledAt: moment('handled_at'),
    handledBy: reference('handled_by').references(() => user.id),
  },
  (t) => [
    index('member_message_member').on(t.memberId, t.createdAt),
    index('member_message_open').on(t.studioId, t.handledAt),
  ],
)
