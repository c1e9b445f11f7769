import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'

/**
 * When a process began, in the kernel's own ticks, or null where it has gone (Linux). A number alone is no identity:
 * it is given to another process later. Together with this it is one.
 */
export function startOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    // The name in brackets may contain anything; the fields after it are numbers. The 22nd of all is the start.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
    return fields[0] === 'Z' ? null : fields[19]
  } catch {
    return null
  }
}

/** The command line of a running process, or nothing. */
export function commandOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')
  } catch {
    return ''
  }
}

/** Writes down which process this is. */
export const writeIdentity = (file, pid) => writeWhole(file, `${pid} ${startOf(pid) ?? ''}`)

/** The process written down in a file, if that very one is still running; else null. */
export function runningIn(file) {
  if (!existsSync(file)) return null
  const [pid, start] = readFileSync(file, 'utf8').trim().split(' ')
  return Number(pid) > 0 && start && startOf(Number(pid)) === start ? Number(pid) : null
}

/** Writes a file wholly or not at all: a start that is killed meanwhile leaves the old one. */
export function writeWhole(file, text) {
  writeFileSync(`${file}.new`, text, { mode: 0o600 })
  renameSync(`${file}.new`, file)
}
