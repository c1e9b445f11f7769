import { Type, type TSchema } from '@sinclair/typebox'
import Ajv from 'ajv'
import type { AccountRefusal } from '../../../core/messages/studio/accounts'
import { closed, oneOf } from '../../../core/base/schema'
import { countAttempt, resetAttempts } from '../accounts/signInLimits'
import { peerOf } from '../accounts/auth'
import { readJson } from './readJson'

const MAX_BODY_LENGTH = 5000
const typed = Type.String({ maxLength: 400 })

/** What the forms outside of a session send. */
export const accountForms = {
  begin: closed({
    code: typed,
    facts: closed({ name: typed, place: typed, timeZone: typed }),
    manager: closed({ name: typed, username: typed, password: typed }),
  }),
  invited: closed({ token: typed, account: closed({ name: typed, username: typed, password: typed }) }),
  password: closed({ present: typed, next: typed }),
  pin: closed({ password: typed, pin: typed }),
  secondFactor: closed({ step: oneOf(['begin', 'confirm', 'end', 'codes']), secret: typed }),
} satisfies Readonly<Record<string, TSchema>>

/** Outcomes of a secret that did not fit; any other outcome is no guess, and is not counted. */
const GUESSES: readonly string[] = ['wrongCode', 'wrongTotp', 'wrong', 'gone'] satisfies AccountRefusal[]

const ajv = new Ajv()
const validators = Object.fromEntries(Object.entries(accountForms).map(([name, schema]) => [name, ajv.compile(schema)]))

/**
 * Answers a form about accounts: 200 done, with what `run` resolved with where that is an object, 422 refused with its
 * code, 429 after too many tries of one peer at `of`. Nothing of it is logged or stored: it carries a password.
 */
export async function answerAccountForm<Form>(
  request: Request,
  { form, of }: Readonly<{ form: keyof typeof accountForms; of: (sent: Form) => string }>,
  run: (sent: Form) => Promise<'kept' | AccountRefusal | object>,
): Promise<Response> {
  const answer = (code: AccountRefusal, status = 422) =>
    Response.json({ code }, { status, headers: { 'cache-control': 'no-store' } })
  const read = await readJson(request, MAX_BODY_LENGTH)
  if (read.outcome === 'refused' || !validators[form](read.body)) return answer('unreadable')
  const sent = read.body as Form
  const [key, peer] = [of(sent), peerOf(request.headers)]
  if ((await countAttempt(key, peer)) > 0) return answer('tooManyTries', 429)
  const outcome = await run(sent)
  const done = outcome === 'kept' ? {} : typeof outcome === 'object' ? outcome : null
  if (done || !GUESSES.includes(outcome as AccountRefusal)) await resetAttempts(key, peer)
  return done
    ? Response.json({ outcome: 'kept', ...done }, { headers: { 'cache-control': 'no-store' } })
    : answer(outcome as AccountRefusal)
}
