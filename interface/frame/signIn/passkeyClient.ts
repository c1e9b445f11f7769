import type {
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser'
import { useSyncExternalStore } from 'react'

const JSON_BODY = { method: 'POST', headers: { 'content-type': 'application/json' } } as const
const never = () => () => undefined
/** Browsers give passkeys to names alone, and over TLS or on this very computer. */
const hasPasskeys = () => 'PublicKeyCredential' in window && !/^[\d.]+$|:/.test(location.hostname)

/** Whether passkeys work at this address; false while the server renders. */
export const useHasPasskeys = (): boolean => useSyncExternalStore(never, hasPasskeys, () => false)

/** `givenUp`: the person closed the device's question. */
export type PasskeyOutcome = 'done' | 'givenUp' | 'stale' | 'passkeyFirst' | 'refused'

/** Asks the device for a passkey and signs in with it. Throws without network. */
export async function signInByPasskey(): Promise<PasskeyOutcome> {
  const { startAuthentication } = await import('@simplewebauthn/browser')
  return ceremony(
    'generate-authenticate-options',
    'verify-authentication',
    async (optionsJSON: PublicKeyCredentialRequestOptionsJSON) => ({
      response: await startAuthentication({ optionsJSON }),
    }),
  )
}

/** Makes a passkey of this device. `stale`: the person signed in too long ago. Throws without network. */
export async function addPasskey(name: string): Promise<PasskeyOutcome> {
  const { startRegistration } = await import('@simplewebauthn/browser')
  return ceremony(
    'generate-register-options',
    'verify-registration',
    async (optionsJSON: PublicKeyCredentialCreationOptionsJSON) => ({
      response: await startRegistration({ optionsJSON }),
      name,
    }),
  )
}

/** Resolves with whether the passkey is removed. */
export async function removePasskey(id: string): Promise<boolean> {
  const sent = await fetch('/api/auth/passkey/delete-passkey', { ...JSON_BODY, body: JSON.stringify({ id }) })
  return sent.ok
}

async function ceremony<Options>(
  optionsAt: string,
  verifiedAt: string,
  ask: (options: Options) => Promise<object>,
): Promise<PasskeyOutcome> {
  const options = await fetch(`/api/auth/passkey/${optionsAt}`, { cache: 'no-store' })
  if (!options.ok) {
    const { code } = (await options.json().catch(() => ({}))) as { code?: string }
    if (code === 'PASSKEY_FIRST') return 'passkeyFirst'
    return options.status === 403 ? 'stale' : 'refused'
  }
  const asked = await ask((await options.json()) as Options).catch((error: unknown) => {
    // A code of the browser's own, as for a question that was closed.
    if (error instanceof Error && error.name !== 'TypeError') return null
    throw error
  })
  if (!asked) return 'givenUp'
  const verified = await fetch(`/api/auth/passkey/${verifiedAt}`, { ...JSON_BODY, body: JSON.stringify(asked) })
  return verified.ok ? 'done' : 'refused'
}
