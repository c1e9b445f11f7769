import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary as common } from '@zxcvbn-ts/language-common'
import { dictionary as english } from '@zxcvbn-ts/language-en'

let made: ZxcvbnFactory | undefined
/** Made at first use: its dictionaries take some megabytes. */
const estimator = () => (made ??= new ZxcvbnFactory({ dictionary: { ...common, ...english }, graphs: adjacencyGraphs }))

/** Shortest and longest password, letters. */
export const MIN_PASSWORD_LENGTH = 10
export const MAX_PASSWORD_LENGTH = 200
/** 0 to 4 by the estimate of guesses; 3 withstands some 10^10 of them. */
const LEAST_SCORE = 3
/** Minimum of letters beside the person's own words. */
const LEAST_BESIDE_OWN = 8
/** Longest part that is estimated: the estimate takes time that grows with the length. */
const ESTIMATED_LENGTH = 72

/** What is wrong with a new password. */
export type PasswordIssue = 'tooShort' | 'tooLong' | 'easyToGuess'

/** What is wrong with a password for a person of these words (name, user name, studio); null where nothing is. */
export function passwordIssue(password: string, words: readonly string[]): PasswordIssue | null {
  if (password.length < MIN_PASSWORD_LENGTH) return 'tooShort'
  if (password.length > MAX_PASSWORD_LENGTH) return 'tooLong'
  const own = words.flatMap((word) => [word, ...word.split(/\s+/)]).filter((word) => word.length > 2)
  // An attacker tries these words first.
  const rest = own.reduce((left, word) => left.replaceAll(word.toLowerCase(), ''), password.toLowerCase())
  if (rest.length < LEAST_BESIDE_OWN) return 'easyToGuess'
  return estimator().check(password.slice(0, ESTIMATED_LENGTH), own).score < LEAST_SCORE ? 'easyToGuess' : null
}

/** As the sign-in library takes user names, in small letters. */
const USERNAME = /^[a-z0-9._]{3,30}$/

/** A user name as stored; null for one that cannot be. */
export function readUsername(typed: string): string | null {
  const name = typed.trim().toLowerCase()
  return USERNAME.test(name) ? name : null
}
