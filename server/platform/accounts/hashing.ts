import { hash, verify } from '@node-rs/argon2'

/** Argon2id with the parameters OWASP's password storage sheet names (19 MiB, two passes); from memory. */
export const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const

export const hashPassword = (password: string): Promise<string> => hash(password, ARGON)
export const verifyPassword = (stored: string, password: string): Promise<boolean> => verify(stored, password)
