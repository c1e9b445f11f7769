import type {
  AnswerOf,
  CodeCommands,
  Commands,
  InputOf,
  OwnCommands,
  Queries,
  Refused,
} from '@/server/commands/registry'
import { send, sendFromCode, sendOwn, sendQuery } from './send'

/**
 * Sends a command. Without `id` each call is a command of its own; with the id of an earlier call it is that command
 * sent again, which changes nothing if it was carried out. Rejects if server or network fail.
 */
export const command = <Name extends keyof Commands>(
  name: Name,
  input: InputOf<Commands[Name]>,
  id: string = crypto.randomUUID(),
) => send(name, input, id) as Promise<AnswerOf<Commands[Name]>>

/** Runs a query. */
export const query = <Name extends keyof Queries>(name: Name, input: InputOf<Queries[Name]>) =>
  sendQuery(name, input) as Promise<AnswerOf<Queries[Name]>>

/** What a command answers. */
export type CommandAnswer<Name extends keyof Commands> = AnswerOf<Commands[Name]>

/** What a query answers unless it is refused. */
export type Found<Name extends keyof Queries> = Exclude<AnswerOf<Queries[Name]>, Refused>

/** Sends a command from the page that a member's link opens. */
export const ownCommand = <Name extends keyof OwnCommands>(
  token: string,
  name: Name,
  input: InputOf<OwnCommands[Name]>,
  id: string,
) => sendOwn(token, name, input, id) as Promise<AnswerOf<OwnCommands[Name]>>

/** Sends a command from the page that a machine's code opens. */
export const codeCommand = <Name extends keyof CodeCommands>(
  code: string,
  name: Name,
  input: InputOf<CodeCommands[Name]>,
  id: string,
) => sendFromCode(code, name, input, id) as Promise<AnswerOf<CodeCommands[Name]>>
