import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { delimiter, join } from 'node:path'
import { run } from './processes.mjs'

/** Full path of a program, or null. Debian installs servers in sbin, which is not on the path of ordinary users. */
export function program(name) {
  const folders = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/local/sbin', '/usr/bin']
  return folders.map((folder) => join(folder, name)).find((path) => existsSync(path)) ?? null
}

/** Installs missing Debian packages where this user may, else names what to install. */
export async function ensureDebian(required) {
  const missing = required.filter(({ programs }) => programs.some((name) => !program(name)))
  if (missing.length === 0) return
  const packages = missing.flatMap((m) => m.packages)
  const please = pleaseInstall(packages)
  const root = process.getuid?.() === 0
  const apt = program('apt-get')
  const sudo = root ? null : program('sudo')
  if (!apt || (!root && !(sudo && (await mayWithoutPassword(sudo))))) throw new Error(please)
  console.log(`Installing ${packages.join(', ')} …`)
  const asRoot = (...args) =>
    run(root ? apt : sudo, [...(root ? [] : ['-n', apt]), ...args], {
      quiet: true,
      env: { DEBIAN_FRONTEND: 'noninteractive' },
    })
  try {
    await asRoot('update', '-qq')
    await asRoot('install', '-y', '-qq', '--no-install-recommends', ...WAIT_FOR_OTHERS, ...packages)
  } catch (error) {
    throw new Error(
      `${please}\n${String(error.output ?? error.message)
        .split('\n')
        .slice(-6)
        .join('\n')}`,
      { cause: error },
    )
  }
}

/** Another installation on this machine is waited for, s. */
const WAIT_FOR_OTHERS = ['-o', 'DPkg::Lock::Timeout=600']

export const pleaseInstall = (packages) =>
  `Please install ${packages.join(' ')} (on Debian: apt-get install ${packages.join(' ')}) and run this again.`

const mayWithoutPassword = (sudo) =>
  run(sudo, ['-n', 'true'], { quiet: true }).then(
    () => true,
    () => false,
  )

export const MARIADB = {
  programs: ['mariadbd', 'mariadb-install-db'],
  packages: ['mariadb-server-core', 'mariadb-client-core'],
}
/** What backups and restores are made with. */
export const MARIADB_CLIENT = {
  programs: ['mariadb-dump', 'mariadb-binlog', 'mariadb'],
  packages: ['mariadb-client'],
}
/** The old headless shell: a quarter less work than the whole browser without its windows, for the same pages. */
export const CHROMIUM = { programs: ['chromium-headless-shell'], packages: ['chromium-headless-shell'] }
export const chromiumPath = () => program(CHROMIUM.programs[0])

/** Installs the npm packages of the lock file unless they are there already. */
export async function ensureNpmPackages(root) {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules', '.lock-installed')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  console.log('Installing npm packages from the lock file …')
  // Not `npm ci`: the lock file is made where builds for other systems cannot be seen, and `ci` would refuse it for
  // that.
  await run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root })
  writeFileSync(stamp, lock)
}

/** Stops with one clear sentence on a Node.js that is too old. */
export function ensureNode() {
  if (Number(process.versions.node.split('.')[0]) < 20)
    throw new Error(`Node.js 20 or newer is needed; this is ${process.versions.node}.`)
}
