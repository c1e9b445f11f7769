/** A certificate for any name, signed by the authority of a data folder: what a thief of its key would make. */
import { readFileSync } from 'node:fs'
import {
  PemConverter,
  SubjectAlternativeNameExtension,
  X509Certificate,
  X509CertificateGenerator,
} from '@peculiar/x509'
import { certificateFiles } from '../../scripts/support/certificate.mjs'

const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' }

export async function forgeCertificate(data, name) {
  const { authority, authorityKey } = certificateFiles(data)
  const [pkcs8] = PemConverter.decode(readFileSync(authorityKey, 'utf8'))
  const { subtle } = globalThis.crypto
  const keys = await subtle.generateKey(ALGORITHM, true, ['sign', 'verify'])
  const cert = await X509CertificateGenerator.create({
    subject: [{ CN: [name] }],
    issuer: new X509Certificate(readFileSync(authority, 'utf8')).subject,
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey,
    signingKey: await subtle.importKey('pkcs8', pkcs8, ALGORITHM, false, ['sign']),
    extensions: [new SubjectAlternativeNameExtension([{ type: 'dns', value: name }])],
  })
  const key = PemConverter.encode(await subtle.exportKey('pkcs8', keys.privateKey), 'PRIVATE KEY')
  return { cert: cert.toString('pem'), key }
}
