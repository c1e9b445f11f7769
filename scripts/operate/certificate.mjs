/**
 * `npm run certificate -- <names>`: a certificate for this computer's names and addresses on the studio's network, by
 * the studio's own authority. `npm start` uses it and renews it before it ends.
 *
 *   npm run certificate -- 192.168.1.20 saddle.local
 *   npm run certificate -- --data /srv/saddle 192.168.1.20
 */
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { ensureNode, ensureNpmPackages } from '../support/installed.mjs'

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))))
try {
  ensureNode()
  await ensureNpmPackages(root)
  const { values, positionals } = parseArgs({ options: { data: { type: 'string' } }, allowPositionals: true })
  const { makeCertificate } = await import('../support/certificate.mjs')
  const data = values.data ?? process.env.SADDLE_DATA ?? join(root, '.data', 'studio')
  const { authority, certificate, isNewAuthority, ends } = await makeCertificate(data, positionals)
  console.log(
    `The certificate for ${positionals.join(', ')} is good until ${ends.toISOString().slice(0, 10)}: ${certificate}\n` +
      (isNewAuthority
        ? `The studio’s own authority is new: ${authority}\nEach device must trust it once. After npm start the page ` +
          'Studio, Devices shows how.'
        : 'The authority stays: devices that trust it need nothing.'),
  )
} catch (error) {
  console.error(`\n${error.message}`)
  process.exit(1)
}
