'use server'
import { headers } from 'next/headers'
import { formatRefusal } from '@/core/messages/refusals'
import { requireUser } from '@/server/platform/accounts/session'
import { refused, type CommandOutcome, type QueryOutcome } from '@/server/commands/defineCommand'
import { runCodeCommand, runCommand, runOwnCommand, runQuery } from '@/server/commands/runCommand'
import { database } from '@/server/platform/db/connection'
import { textOf } from '@/server/platform/ids'
import { openCode } from '@/server/bikes/codeLimits'
import { openFrom } from '@/server/riders/memberPage/pageLimits'

/** Door for commands of somebody signed in. `command.ts` gives it types. */
export async function send(name: string, input: unknown, id: string): Promise<object> {
  const person = await requireUser()
  return withSentence(await runCommand(database(), person, { name, id, input }, new Date()))
}

/** Door for queries of somebody signed in. */
export async function sendQuery(name: string, input: unknown): Promise<object> {
  const person = await requireUser()
  return withSentence(await runQuery(database(), person, { name, input }, new Date()))
}

/** Door for commands from the page that a member's link opens; its use is counted. */
export async function sendOwn(token: string, name: string, input: unknown, id: string): Promise<object> {
  const peer = (await headers()).get('x-forwarded-for') ?? 'unknown'
  const db = database()
  const owner = await openFrom(db, peer, textOf(token), 'write', new Date())
  if (!owner) return withSentence(refused({ code: 'linkEnded' }))
  return withSentence(await runOwnCommand(db, owner, { name, id, input }, new Date()))
}

/** Door for commands from the page that a machine's code opens. */
export async function sendFromCode(code: string, name: string, input: unknown, id: string): Promise<object> {
  const peer = (await headers()).get('x-forwarded-for') ?? 'unknown'
  const db = database()
  const owner = await openCode(db, peer, textOf(code))
  if (owner?.state !== 'inForce') return withSentence(refused({ code: 'codeChanged' }))
  return withSentence(await runCodeCommand(db, owner, { name, id, input }, new Date()))
}

const withSentence = (outcome: CommandOutcome | QueryOutcome): object =>
  outcome.outcome === 'refused' ? { ...outcome, say: formatRefusal(outcome) } : outcome
