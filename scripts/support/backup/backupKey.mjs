import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { generateX25519Identity, identityToRecipient } from 'age-encryption'
import { writeWhole } from '../identity.mjs'

/** Where the key of the backups lies in the data folder. */
export const keyFile = (data) => join(data, 'backup-key.txt')

/**
 * The key that backups are encrypted to, an age identity (age-encryption.org/v1); made the first time, readable by the
 * owner alone. Resolves with `{ identity, recipient, isNew }`. Throws an Error for a file without a key.
 */
export async function backupKey(file) {
  const isNew = !existsSync(file)
  if (isNew)
    writeWhole(
      file,
      '# The key of this studio’s backups. Keep a copy away from this computer: without it no backup opens.\n' +
        `${await generateX25519Identity()}\n`,
    )
  const identity = readFileSync(file, 'utf8')
    .split('\n')
    .find((line) => line.startsWith('AGE-SECRET-KEY-'))
    ?.trim()
  if (!identity) throw new Error(`${file} holds no key. Put the copy of the backups’ key there.`)
  return { identity, recipient: await identityToRecipient(identity), isNew }
}
