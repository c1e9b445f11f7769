/** The studio's own certificate authority, and the certificate it gives to the studio's server. */
import { X509Certificate as NodeCertificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { join } from 'node:path'
import { AsnConvert } from '@peculiar/asn1-schema'
import {
  GeneralName,
  GeneralSubtree,
  GeneralSubtrees,
  id_ce_nameConstraints,
  NameConstraints,
} from '@peculiar/asn1-x509'
import {
  AuthorityKeyIdentifierExtension,
  BasicConstraintsExtension,
  ExtendedKeyUsage,
  ExtendedKeyUsageExtension,
  Extension,
  KeyUsageFlags,
  KeyUsagesExtension,
  PemConverter,
  SubjectAlternativeNameExtension,
  SubjectKeyIdentifierExtension,
  X509Certificate,
  X509CertificateGenerator,
} from '@peculiar/x509'
import { writeWhole } from './identity.mjs'

const { subtle } = globalThis.crypto
const ALGORITHM = Object.freeze({ name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' })
const DAY_MS = 86_400_000
const AUTHORITY_DAYS = 3650
/** Phones refuse a certificate that is good for longer than some 398 days. */
const CERTIFICATE_DAYS = 390
/** Days before its end from which a certificate is renewed. */
export const RENEW_DAYS = 30
/** A device whose clock is behind by less trusts a new certificate at once, ms. */
const CLOCK_BEHIND_MS = DAY_MS
/** What the authority may vouch for: names and addresses that exist inside a house only. */
export const LOCAL_DOMAINS = Object.freeze(['localhost', 'local', 'lan', 'internal', 'home.arpa', 'test'])
const LOCAL_NETWORKS = Object.freeze([
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '169.254.0.0/16',
  '127.0.0.0/8',
  'fc00::/7',
  'fe80::/10',
  '::1/128',
])

/** Where authority, certificate and their keys lie in the data folder. */
export const certificateFiles = (data) => ({
  authority: join(data, 'tls', 'authority.pem'),
  authorityKey: join(data, 'tls', 'authority-key.pem'),
  certificate: join(data, 'tls', 'certificate.pem'),
  key: join(data, 'tls', 'key.pem'),
})

/** A sentence for each name that the authority may not vouch for. */
export function nameFaults(names) {
  if (names.length === 0) return ['Name at least one address of this computer, such as 192.168.1.20 or saddle.local.']
  return names.flatMap((name) => {
    if (isIP(name)) return isLocalAddress(name) ? [] : [`${name} is an address outside. ${OUTSIDE}`]
    if (!/^(?=.{1,253}$)[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*$/.test(name))
      return [`"${name}" is not a name of a computer: small letters, digits, hyphens and dots.`]
    return LOCAL_DOMAINS.some((domain) => name === domain || name.endsWith(`.${domain}`))
      ? []
      : [`${name} is a name outside. ${OUTSIDE}`]
  })
}
const OUTSIDE =
  'The studio’s own authority vouches for private addresses and for names that end in ' +
  `.${LOCAL_DOMAINS.join(', .')}; for others take a certificate of a public authority.`

function isLocalAddress(address) {
  if (isIP(address) === 6) return /^(fc|fd|fe[89ab]|::1$)/i.test(address)
  const [a, b] = address.split('.').map(Number)
  return (
    a === 10 || a === 127 || (a === 172 && b >= 16 && b < 32) || (a === 192 && b === 168) || (a === 169 && b === 254)
  )
}

/**
 * Makes a certificate for `names` (host names and IP addresses) in the data folder, signed by the studio's own
 * authority, which is made the first time and stays: devices that trust it need no visit. Resolves with the files and
 * `{ isNewAuthority, ends }`. Keys are readable by the owner alone. Throws an Error with one sentence for each name
 * outside.
 */
export async function makeCertificate(data, names, now = new Date()) {
  const faults = nameFaults(names)
  if (faults.length > 0) throw new Error(faults.join('\n'))
  const files = certificateFiles(data)
  mkdirSync(join(data, 'tls'), { recursive: true, mode: 0o700 })
  const isNewAuthority = !existsSync(files.authority) || endOf(files.authority) < daysAfter(now, CERTIFICATE_DAYS)
  if (isNewAuthority) await makeAuthority(files, names[0], now)
  const authority = new X509Certificate(readFileSync(files.authority, 'utf8'))
  const signingKey = await subtle.importKey(
    'pkcs8',
    PemConverter.decode(readFileSync(files.authorityKey, 'utf8'))[0],
    ALGORITHM,
    false,
    ['sign'],
  )
  const keys = await subtle.generateKey(ALGORITHM, true, ['sign', 'verify'])
  const ends = daysAfter(now, CERTIFICATE_DAYS)
  const certificate = await X509CertificateGenerator.create({
    subject: [{ CN: [names[0]] }],
    issuer: authority.subject,
    ...validity(now, ends),
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey,
    signingKey,
    extensions: [
      new BasicConstraintsExtension(false, undefined, true),
      new KeyUsagesExtension(KeyUsageFlags.digitalSignature, true),
      new ExtendedKeyUsageExtension([ExtendedKeyUsage.serverAuth]),
      new SubjectAlternativeNameExtension(names.map((value) => ({ type: isIP(value) ? 'ip' : 'dns', value }))),
      await AuthorityKeyIdentifierExtension.create(authority.publicKey),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  })
  writeWhole(files.key, await toPem(keys.privateKey))
  writeWhole(files.certificate, `${certificate.toString('pem')}\n${authority.toString('pem')}\n`)
  return { ...files, isNewAuthority, ends }
}

async function makeAuthority(files, name, now) {
  const keys = await subtle.generateKey(ALGORITHM, true, ['sign', 'verify'])
  const permittedSubtrees = new GeneralSubtrees([
    ...LOCAL_DOMAINS.map((dNSName) => new GeneralSubtree({ base: new GeneralName({ dNSName }) })),
    ...LOCAL_NETWORKS.map((iPAddress) => new GeneralSubtree({ base: new GeneralName({ iPAddress }) })),
  ])
  const constraints = AsnConvert.serialize(new NameConstraints({ permittedSubtrees }))
  const authority = await X509CertificateGenerator.createSelfSigned({
    name: [{ CN: [`Yielding Saddle at ${name}`] }],
    ...validity(now, daysAfter(now, AUTHORITY_DAYS)),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      new BasicConstraintsExtension(true, 0, true),
      new KeyUsagesExtension(KeyUsageFlags.keyCertSign | KeyUsageFlags.cRLSign, true),
      new Extension(id_ce_nameConstraints, true, constraints),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  })
  writeWhole(files.authorityKey, await toPem(keys.privateKey))
  writeWhole(files.authority, `${authority.toString('pem')}\n`)
}

/**
 * Renews the studio's own certificate, for the same names, where it ends within `RENEW_DAYS`. Resolves with its
 * new end, or null where there was nothing to do.
 */
export async function renewCertificate(data, now = new Date()) {
  const { certificate } = certificateFiles(data)
  if (!existsSync(certificate) || endOf(certificate) > daysAfter(now, RENEW_DAYS)) return null
  const { ends } = await makeCertificate(data, certificateNames(certificate), now)
  return ends
}

/** The names and addresses of a certificate's file, in its order. */
export function certificateNames(file) {
  const extension = new X509Certificate(firstPem(file)).getExtension(SubjectAlternativeNameExtension)
  return extension.names.toJSON().map(({ value }) => value)
}

const firstPem = (file) => readFileSync(file, 'utf8').split(/(?<=-----END CERTIFICATE-----)/)[0]
const endOf = (file) => new Date(new NodeCertificate(firstPem(file)).validTo)
const daysAfter = (now, days) => new Date(now.getTime() + days * DAY_MS)
const validity = (now, notAfter) => ({ notBefore: new Date(now.getTime() - CLOCK_BEHIND_MS), notAfter })
const toPem = async (key) => `${PemConverter.encode(await subtle.exportKey('pkcs8', key), 'PRIVATE KEY')}\n`
