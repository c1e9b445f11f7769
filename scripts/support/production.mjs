import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { writeIdentity } from './identity.mjs'
import { endingWithItsParent } from './mariadb.mjs'
import { answers, ended, healthy, run, stop } from './processes.mjs'

const SOURCES = [
  'app',
  'core',
  'interface',
  'server',
  'types',
  'package-lock.json',
  'next.config.ts',
  'instrumentation.ts',
  'proxy.ts',
  'tsconfig.json',
]

/** Where builds lie: that which is used, and that of the tests. */
const BUILDS = ['.next', '.next-test']

/** Builds the application into `dist` unless that build was made of these very sources. */
export async function build(root, dist) {
  // Route types of another build, of pages that have moved since, would stop the type check of this one.
  for (const other of BUILDS) if (other !== dist) rmSync(join(root, other, 'types'), { recursive: true, force: true })
  const stamp = join(root, dist, 'made-of')
  const print = fingerprint(root)
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === print) return
  console.log('Building …')
  rmSync(stamp, { force: true })
  await run(bin(root, 'next'), ['build'], {
    cwd: root,
    quiet: true,
    env: { NEXT_DIST: dist, NEXT_TELEMETRY_DISABLED: '1' },
  }).catch((error) => {
    throw new Error(`The build failed.\n${error.output}`, { cause: error })
  })
  await bundleWorkers(root, dist)
  await bundleServiceWorker(root, dist)
  writeFileSync(stamp, print)
}

/** What the server runs in threads, each as one file beside the build. */
export async function bundleWorkers(root, dist) {
  const { build: bundle } = await import('esbuild')
  await bundle({
    entryPoints: {
      worker: join(root, 'server/platform/compute/worker.ts'),
      calendar: join(root, 'server/classes/calendar/worker.ts'),
    },
    outdir: join(root, dist, 'compute'),
    outExtension: { '.js': '.cjs' },
    bundle: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    logLevel: 'error',
  })
}

/** The browser's service worker, as one file beside the build. */
async function bundleServiceWorker(root, dist) {
  const { build: bundle } = await import('esbuild')
  await bundle({
    entryPoints: [join(root, 'interface/offline/worker.ts')],
    outfile: join(root, dist, 'service-worker.js'),
    bundle: true,
    minify: true,
    platform: 'browser',
    format: 'iife',
    target: 'es2022',
    define: { 'process.env.NODE_ENV': '"production"' },
    logLevel: 'error',
  })
}

/**
 * Serves a build (or the development server) on loopback; resolves once `probe` (server and database together)
 * answers, probed at `probePort`, a plain loopback port for probes alone, where one is given. What it prints goes to
 * `log`, a stream; the server ends with this process.
 */
export async function serve(
  root,
  dist,
  port,
  env,
  { dev = false, log, identity, probe = '/api/health', probePort } = {},
) {
  const [command, ...before] = endingWithItsParent(process.execPath)
  const server = spawn(command, [...before, join(root, 'scripts', 'serve.mjs')], {
    cwd: root,
    env: {
      ...process.env,
      ...env,
      NODE_ENV: dev ? 'development' : 'production',
      NEXT_DIST: dist,
      NEXT_TELEMETRY_DISABLED: '1',
      PORT: String(port),
      ...(probePort && { PROBE_PORT: String(probePort) }),
    },
    stdio: ['pipe', 'pipe', 'pipe'],
    detached: true,
  })
  if (identity) writeIdentity(identity, server.pid)
  const exited = ended(server)
  let last = ''
  for (const stream of [server.stdout, server.stderr]) {
    stream.on('data', (chunk) => {
      last = (last + chunk).slice(-20_000)
      log?.write(chunk)
    })
  }
  const probed = `http://127.0.0.1:${probePort ?? port}${probe}`
  await healthy(probed, server).catch(async (error) => {
    await stop(server)
    throw new Error(`${error.message}\n${last}`, { cause: error })
  })
  return {
    exited,
    stop: () => stop(server),
    kill: () => server.kill('SIGKILL'),
    log: () => last,
    answers: (ms) => answers(probed, ms),
  }
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
