import { createHash } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import { issuesFromAjv } from '../../core/messages/words/issues'
import { uniqueByPointer } from '../../core/operations/errorResponse'
import { sizeIssuesOf } from '../../core/operations/sizeIssues'
import { can } from '../platform/accounts/can'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { errnoOf, DUPLICATE } from '../platform/db/errors'
import { commandReceipt } from '../platform/receipts/tables'
import { isId } from '../platform/ids'
import { settleSoon } from '../privacy/accessLog/settle'
import type { CodeOwner } from '../bikes/codes'
import type { LinkOwner } from '../riders/memberPage/links'
import {
  refused,
  type CodeCommand,
  type Command,
  type CommandContext,
  type CommandOptions,
  type CommandOutcome,
  type CommandRefused,
  type OwnCommand,
  type Query,
  type QueryOutcome,
} from './defineCommand'
import { pruneReceipts } from '../platform/receipts/pruneReceipts'
import { CODE_COMMANDS, COMMANDS, INPUT_SCHEMAS, OWN_COMMANDS, QUERIES, validatorName } from './registry'
import validators from './generated/validators.generated.cjs'

/** A command as it was sent. */
export type SentCommand = Readonly<{ name: string; id: string; input: unknown; observedAt?: Date }>

const malformed = refused({ code: 'malformed' })
const named = <T>(all: Readonly<Record<string, T>>, name: string): T | null =>
  Object.hasOwn(all, name) ? all[name] : null

/**
 * Runs a command for somebody signed in: checks role, id and input, then writes in one transaction together with its
 * receipt. A refused command writes nothing. Sent again under its id it changes nothing and has the same outcome.
 * A throw is a fault of database or program, after which the command may be sent again.
 */
export async function runCommand(
  db: Database,
  scope: Scope,
  sent: SentCommand,
  now: Date,
): Promise<CommandOutcome<object>> {
  const command = named(COMMANDS, sent.name) as Command | null
  if (!command) return malformed
  if (!can(scope, command.permission)) return refused({ code: 'notAllowed' })
  return carryOut(db, { studioId: scope.studioId, userId: scope.userId }, command, sent, now, (tx, input, context) =>
    command.run(tx, scope, input as never, context),
  )
}

/** Runs a command of a member's own page, as `runCommand` does. */
export async function runOwnCommand(
  db: Database,
  owner: LinkOwner,
  sent: SentCommand,
  now: Date,
): Promise<CommandOutcome<object>> {
  const command = named(OWN_COMMANDS, sent.name) as OwnCommand | null
  if (!command) return malformed
  const by = { studioId: owner.studioId, userId: null, memberId: owner.memberId }
  return carryOut(db, by, command, sent, now, (tx, input, context) => command.run(tx, owner, input as never, context))
}

/** Runs a command of somebody at a machine with its code, as `runCommand` does. */
export async function runCodeCommand(
  db: Database,
  owner: CodeOwner,
  sent: SentCommand,
  now: Date,
): Promise<CommandOutcome<object>> {
  const command = named(CODE_COMMANDS, sent.name) as CodeCommand | null
  if (!command) return malformed
  const by = { studioId: owner.studioId, userId: null }
  return carryOut(db, by, command, sent, now, (tx, input, context) => command.run(tx, owner, input as never, context))
}

/** Answers a query for somebody signed in; checks role and input. */
export async function runQuery(
  db: Database,
  scope: Scope,
  { name, input }: Readonly<{ name: string; input: unknown }>,
  now: Date,
): Promise<QueryOutcome<object>> {
  const query = named(QUERIES, name) as Query | null
  if (!query) return malformed
  if (!can(scope, query.permission)) return refused({ code: 'notAllowed' })
  const read = readInput(name, input)
  return 'outcome' in read ? read : query.run(db, scope, read.input as never, now)
}

type Actor = Readonly<{ studioId: string; userId: string | null; memberId?: string }>
type Write = (tx: Database, input: unknown, context: CommandContext) => Promise<CommandOutcome<object>>

async function carryOut(
  db: Database,
  by: Actor,
  command: CommandOptions & Readonly<{ name: string }>,
  { name, id, input: sent, observedAt }: SentCommand,
  now: Date,
  write: Write,
): Promise<CommandOutcome<object>> {
  if (!isId(id)) return malformed
  const read = readInput(name, sent)
  if ('outcome' in read) return read
  const { input, text } = read
  const contentHash = createHash('sha256').update(`${name} ${text}`).digest('hex')
  const receipt = { id, studioId: by.studioId, name, actor: by.userId, subject: subjectOf(by, input), contentHash }

  const attempt = async (tx: Database): Promise<Attempt> => {
    const earlier = await findReceipt(tx, by.studioId, id)
    if (earlier?.contentHash === contentHash) return { outcome: earlier.outcome as CommandOutcome<object>, after: [] }
    if (earlier && !command.ownsId) return { outcome: refused({ code: 'idTaken' }), after: [] }
    const after: (() => void)[] = []
    const context = { id, now, observedAt: observedAt ?? now, afterCommit: (work: () => void) => after.push(work) }
    const outcome = await write(tx, input, context)
    if (outcome.outcome === 'refused') throw new Undone(outcome)
    if (!earlier) await tx.insert(commandReceipt).values({ ...receipt, outcome, at: now })
    return { outcome, after }
  }
  const inOnePiece = () =>
    command.inTransaction === false ? attempt(db) : withTransaction(db, (tx) => attempt(tx as Database), COMMITTED)
  const { outcome, after } = await onceMore(inOnePiece, () => findReceipt(db, by.studioId, id))
  after.forEach((work) => work())
  settleSoon(db, by.studioId)
  // Not waited for: a failure costs nothing but room, and the next day tries again.
  void pruneReceipts(db, now).catch(() => undefined)
  return outcome
}

type Attempt = Readonly<{ outcome: CommandOutcome<object>; after: readonly (() => void)[] }>

/** Each statement reads what is committed by then: a command reads before it locks. */
const COMMITTED = { isolationLevel: 'read committed' } as const

/** Takes back what a refused command had written. */
class Undone extends Error {
  constructor(readonly outcome: CommandRefused) {
    super(outcome.code)
  }
}

/**
 * The attempt; once more where the same id was carried out meanwhile, which its receipt then answers. It shows in a
 * duplicate key, or in a refusal because of what the other had written.
 */
async function onceMore(
  attempt: () => Promise<Attempt>,
  receipt: () => Promise<object | null>,
  isAgain = false,
): Promise<Attempt> {
  try {
    return await attempt()
  } catch (error) {
    const isMeanwhile = errnoOf(error) === DUPLICATE || (error instanceof Undone && (await receipt()) !== null)
    if (!isAgain && isMeanwhile) return onceMore(attempt, receipt, true)
    if (error instanceof Undone) return { outcome: error.outcome, after: [] }
    throw error
  }
}

async function findReceipt(db: DbExecutor, studioId: string, id: string) {
  const [found] = await db
    .select({ contentHash: commandReceipt.contentHash, outcome: commandReceipt.outcome })
    .from(commandReceipt)
    .where(and(eq(commandReceipt.studioId, studioId), eq(commandReceipt.id, id)))
  return found ?? null
}

/** The input as plain JSON values with its text; a refusal with the place of each issue where it breaks its schema. */
function readInput(name: string, sent: unknown): Readonly<{ input: unknown; text: string }> | CommandRefused {
  const text = asJson(sent)
  if (text === null) return malformed
  const input = JSON.parse(text) as unknown
  const key = validatorName(name)
  const tooLarge = sizeIssuesOf(INPUT_SCHEMAS[key], input)
  if (tooLarge.length > 0) return refused({ code: 'malformed', issues: tooLarge })
  const validate = validators[key]
  if (validate(input)) return { input, text }
  return refused({ code: 'malformed', issues: uniqueByPointer(issuesFromAjv(validate.errors ?? [])) })
}

/** Null for what JSON cannot carry, which the framework's own encoding of calls can: circles, large integers. */
function asJson(value: unknown): string | null {
  try {
    return JSON.stringify(value) ?? null
  } catch {
    return null
  }
}

/** What a command is about, the nearest to a person first. */
const SUBJECTS = [
  'memberId',
  'into',
  'userId',
  'setupId',
  'complaintId',
  'trialId',
  'noteId',
  'moveId',
  'entryId',
  'messageId',
  'classId',
  'bikeId',
  'typeId',
  'lineId',
] as const

function subjectOf({ memberId }: Actor, input: unknown): string | null {
  if (memberId) return memberId
  const key = SUBJECTS.find((one) => typeof (input as Record<string, unknown>)[one] === 'string')
  return key ? (input as Record<string, string>)[key] : null
}
