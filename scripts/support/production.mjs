import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { answering, run, stop } from './processes.mjs'

const SOURCES = ['app', 'core', 'interface', 'server', 'types', 'package-lock.json', 'next.config.ts', 'proxy.ts', 'tsconfig.json']

/** Builds the application into `dist` unless that build was made of these very sources. */
export async function build(root, dist) {
  const stamp = join(root, dist, 'made-of')
  const print = fingerprint(root)
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === print) return
  console.log('Building …')
  rmSync(stamp, { force: true })
  await run(bin(root, 'next'), ['build'], { cwd: root, quiet: true, env: { NEXT_DIST: dist, NEXT_TELEMETRY_DISABLED: '1' } }).catch((error) => {
    throw new Error(`The build failed.\n${error.output}`, { cause: error })
  })
  await bundleWorker(root, dist)
  writeFileSync(stamp, print)
}

/** The core's thread for the server, as one file beside the build. */
export async function bundleWorker(root, dist) {
  const { build: bundle } = await import('esbuild')
  await bundle({ entryPoints: [join(root, 'server/compute/worker.ts')], outfile: join(root, dist, 'compute', 'worker.cjs'), bundle: true, platform: 'node', format: 'cjs', target: 'node20', logLevel: 'error' })
}

/** Serves a build (or the development server) on loopback; resolves once it answers. */
export async function serve(root, dist, port, env, { dev = false } = {}) {
  const server = spawn(process.execPath, [join(root, 'node_modules', 'next', 'dist', 'bin', 'next'), dev ? 'dev' : 'start', '-H', '127.0.0.1', '-p', String(port)], {
    cwd: root,
    env: { ...process.env, ...env, NEXT_DIST: dist, NEXT_TELEMETRY_DISABLED: '1' },
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: true,
  })
  let log = ''
  for (const stream of [server.stdout, server.stderr]) stream.on('data', (chunk) => (log = (log + chunk).slice(-20_000)))
  await answering(`http://127.0.0.1:${port}/sign-in`, server).catch(async (error) => {
    await stop(server)
    throw new Error(`${error.message}\n${log}`, { cause: error })
  })
  return { stop: () => stop(server), exited: new Promise((resolve) => server.once('exit', resolve)), log: () => log }
}

export const bin = (root, name) => join(root, 'node_modules', '.bin', name)

function fingerprint(root) {
  const hash = createHash('sha256')
  const add = (path) => hash.update(path.slice(root.length)).update(readFileSync(path))
  for (const source of SOURCES) {
    const path = join(root, source)
    if (!existsSync(path)) continue
    if (/\.[a-z]+$/.test(source)) add(path)
    else
      readdirSync(path, { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile() && !entry.name.includes('.test.'))
        .map((entry) => join(entry.parentPath, entry.name))
        .sort()
        .forEach(add)
  }
  return hash.digest('hex')
}
