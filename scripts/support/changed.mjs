import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const git = (root, ...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' }).split('\n').filter(Boolean)

/** Files that differ from a git revision, untracked ones too, and the names of deleted ones. */
export function changedFiles(root, revision) {
  const all = [
    ...git(root, 'diff', '--name-only', '--no-renames', revision),
    ...git(root, 'ls-files', '--others', '--exclude-standard'),
  ]
  const isThere = (file) => existsSync(join(root, file))
  return { files: all.filter(isThere), deleted: all.filter((file) => !isThere(file)) }
}

/**
 * Files that import one of `files`, directly or not, with the files themselves. `modules`: those of a report of
 * dependency-cruiser (`source`, `dependencies[].resolved`).
 */
export function reachedFrom(files, modules) {
  const importers = new Map()
  for (const { source, dependencies } of modules)
    for (const { resolved } of dependencies) importers.set(resolved, [...(importers.get(resolved) ?? []), source])
  const reached = new Set(files)
  for (const file of reached) for (const importer of importers.get(file) ?? []) reached.add(importer)
  return reached
}

/** A page's or route handler's address as a pattern: `app/(studio)/riders/[id]/page.tsx` → `/riders/…`; else null. */
export function addressOf(file) {
  const [, folders] = /^app\/(.*?)(?:\/?)(?:page|route)\.tsx?$/.exec(file) ?? []
  if (folders === undefined) return null
  const parts = folders.split('/').filter((part) => part && !part.startsWith('('))
  return new RegExp(`/${parts.map((part) => (part.startsWith('[') ? '[^/\'"`?]+' : part)).join('/')}(?![\\w/-])`)
}

/** Browser tests that a change touches: specs that import a reached file, or name the address of a reached page. */
export function touchedSpecs(root, reached, specs) {
  const addresses = [...reached].map(addressOf).filter(Boolean)
  return specs.filter(
    (spec) => reached.has(spec) || addresses.some((address) => address.test(readFileSync(join(root, spec), 'utf8'))),
  )
}
