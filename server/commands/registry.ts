import * as alone from './alone'
import * as bikes from './bikes'
import * as classes from './classes'
import * as comfort from './comfort'
import type { CodeCommand, Command, CommandRefused, OwnCommand, Query } from './defineCommand'
import * as members from './members'
import * as notes from './notes'
import * as ownPage from './ownPage'
import * as people from './people'
import * as places from './places'
import * as privacy from './privacy'
import * as register from './register'
import * as riderFiles from './riderFiles'
import * as rooms from './rooms'
import * as setups from './setups'
import * as studio from './studio'

/** One file per subject; each exports nothing but commands and queries. */
const SUBJECTS = {
  alone,
  bikes,
  classes,
  comfort,
  members,
  notes,
  ownPage,
  people,
  places,
  privacy,
  register,
  riderFiles,
  rooms,
  setups,
  studio,
}

type Subjects = typeof SUBJECTS
type Defined = { [S in keyof Subjects]: Subjects[S][keyof Subjects[S]] }[keyof Subjects]
type Named<Kind extends string> = {
  [D in Extract<Defined, Readonly<{ kind: Kind }>> as D['name']]: D
}

/** Every write by somebody signed in, from a member's own page, and at a machine's code; every query; by name. */
export type Commands = Named<'command'>
export type OwnCommands = Named<'ownCommand'>
export type CodeCommands = Named<'codeCommand'>
export type Queries = Named<'query'>

type Anything = Command | OwnCommand | CodeCommand | Query
const ALL = Object.values(SUBJECTS).flatMap((subject) => Object.values(subject)) as unknown as readonly Anything[]
const byName = <D extends Anything>(kind: D['kind']): Readonly<Record<string, D>> =>
  Object.fromEntries(ALL.filter((one) => one.kind === kind).map((one) => [one.name, one as D]))

export const COMMANDS = byName<Command>('command')
export const OWN_COMMANDS = byName<OwnCommand>('ownCommand')
export const CODE_COMMANDS = byName<CodeCommand>('codeCommand')
export const QUERIES = byName<Query>('query')

/** The schema of each input by the name of its validator. */
export const INPUT_SCHEMAS = Object.fromEntries(ALL.map(({ name, schema }) => [validatorName(name), schema]))

/** A name as an identifier: `bikes.saveType` becomes `bikes_saveType`. */
export function validatorName(name: string): string {
  return name.replaceAll('.', '_')
}

type Runs = Readonly<{ run: (...given: never[]) => unknown }>
/** The input of a command or query. */
export type InputOf<D extends Runs> = Parameters<D['run']>[2]

/** What a door answers: the outcome, a refusal with its sentence. */
export type AnswerOf<D> =
  D extends Readonly<{ run: (...given: never[]) => Promise<infer Outcome> }>
    ? Exclude<Outcome, CommandRefused> | Refused
    : never
export type Refused = CommandRefused & Readonly<{ say: string }>
