import type { TSchema } from '@sinclair/typebox'
import { Type } from '@sinclair/typebox'
import type { Refusal } from '../../core/messages/refusals'
import type { Plain } from '../../core/base/schema'
import type { Permission } from '../platform/accounts/can'
import type { Scope } from '../platform/accounts/scope'
import type { Database } from '../platform/db/connection'
import type { CodeOwner } from '../bikes/codes'
import type { LinkOwner } from '../riders/memberPage/links'
import type { OutboxOp } from '../platform/entry'

export type CommandRefused = Readonly<{ outcome: 'refused' }> & Refusal
export type CommandOutcome<Data extends object = object> = Readonly<{ outcome: 'kept' } & Data> | CommandRefused
export type QueryOutcome<Data extends object = object> = Readonly<{ outcome: 'found' } & Data> | CommandRefused

/** What a command knows beside its input. */
export type CommandContext = Readonly<{
  /** Made by the client; the same when it sends again. A command that writes one row uses it as that row's id. */
  id: string
  now: Date
  /** When it happened on the device; `now` without a device time. */
  observedAt: Date
  /** Work to do once the write is committed, for example to notify open pages. */
  afterCommit: (work: () => void) => void
}>

type Base<Name extends string, S extends TSchema> = Readonly<{ name: Name; schema: S }>
type Run<Actor, S extends TSchema, Outcome> = (
  db: Database,
  actor: Actor,
  input: Plain<S>,
  context: CommandContext,
) => Promise<Outcome>

export type CommandOptions = Readonly<{
  /** The outbox entry that carries this command; such a command is sent later by a device that was offline. */
  offline?: OutboxOp
  /**
   * The command's id is the id of the row it writes, and the row decides what a second send with other input means.
   * Otherwise such a send is refused (`idTaken`).
   */
  ownsId?: boolean
  /** False: the command waits for a compute thread and makes its own short transactions. Default true. */
  inTransaction?: boolean
}>

/** A write by somebody signed in, whose role has `permission`. */
export type Command<Name extends string = string, S extends TSchema = TSchema, Data extends object = object> = Base<
  Name,
  S
> &
  CommandOptions &
  Readonly<{ kind: 'command'; permission: Permission; run: Run<Scope, S, CommandOutcome<Data>> }>

/** A write by a member from their own page. */
export type OwnCommand<Name extends string = string, S extends TSchema = TSchema, Data extends object = object> = Base<
  Name,
  S
> &
  CommandOptions &
  Readonly<{ kind: 'ownCommand'; run: Run<LinkOwner, S, CommandOutcome<Data>> }>

/** A write by somebody at a machine with its code, nobody signed in. */
export type CodeCommand<Name extends string = string, S extends TSchema = TSchema, Data extends object = object> = Base<
  Name,
  S
> &
  CommandOptions &
  Readonly<{ kind: 'codeCommand'; run: Run<CodeOwner, S, CommandOutcome<Data>> }>

/** A request of data by a rendered view. It writes nothing. */
export type Query<Name extends string = string, S extends TSchema = TSchema, Data extends object = object> = Base<
  Name,
  S
> &
  Readonly<{
    kind: 'query'
    permission: Permission
    run: (db: Database, scope: Scope, input: Plain<S>, now: Date) => Promise<QueryOutcome<Data>>
  }>

export const defineCommand = <const Name extends string, S extends TSchema, Data extends object = object>(
  command: Omit<Command<Name, S, Data>, 'kind'>,
): Command<Name, S, Data> => ({ kind: 'command', ...command })

export const defineOwnCommand = <const Name extends string, S extends TSchema, Data extends object = object>(
  command: Omit<OwnCommand<Name, S, Data>, 'kind'>,
): OwnCommand<Name, S, Data> => ({ kind: 'ownCommand', ...command })

export const defineCodeCommand = <const Name extends string, S extends TSchema, Data extends object = object>(
  command: Omit<CodeCommand<Name, S, Data>, 'kind'>,
): CodeCommand<Name, S, Data> => ({ kind: 'codeCommand', ...command })

export const defineQuery = <const Name extends string, S extends TSchema, Data extends object = object>(
  query: Omit<Query<Name, S, Data>, 'kind'>,
): Query<Name, S, Data> => ({ kind: 'query', ...query })

export const refused = (refusal: Refusal): CommandRefused => ({ outcome: 'refused', ...refusal })
export const SAVED = Object.freeze({ outcome: 'kept' })

/** An id of this product: made by a client, at most 36 letters, digits and hyphens. */
export const idSchema = Type.String({ pattern: '^[0-9a-z-]{1,36}$' })
/** An id or null. */
export const idOrNull = Type.Unsafe<string | null>({ type: ['string', 'null'], pattern: '^[0-9a-z-]{1,36}$' })
/** How strong something is felt. */
export const ratingSchema = Type.Integer({ minimum: 0, maximum: 10 })
/** A value whose own validator in the core answers with the place of each issue; `run` calls it. */
export const checkedInRun = <T>() => Type.Unsafe<T>({})
/** A text typed by somebody; `run` reports what is wrong with it. */
export const typedText = Type.String({ maxLength: 2000 })
