/** A secret of 256 random bits, base64url, and its SHA-256 in hexadecimal: the server gets the fingerprint alone. */
export async function newSecret(prefix = ''): Promise<Readonly<{ secret: string; fingerprint: string }>> {
  const bytes = crypto.getRandomValues(new Uint8Array(32))
  const text = btoa(String.fromCharCode(...bytes))
  const secret = prefix + text.replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '')
  const hash = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(secret))
  const fingerprint = [...new Uint8Array(hash)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return { secret, fingerprint }
}
