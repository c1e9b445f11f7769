import { mean, share } from './inputs'

/** A chance as it was stated, and whether what it is of was true. */
export type Stated = Readonly<{ chance: number; true: boolean }>
/** Stated against true shares, tenth by tenth, for some kinds of statement beside each other. */
export function statedTable(title: string, kinds: Readonly<Record<string, readonly Stated[]>>): string[] {
  const names = Object.keys(kinds)
  const lines = ['', `## ${title}`, '']
  lines.push(`| stated | ${names.map((name) => `${name}: stated | true | cases`).join(' | ')} |`)
  lines.push(`|---|${names.map(() => '---|---|---|').join('')}`)
  for (let tenth = 0; tenth < 10; tenth++) {
    const cells = names.flatMap((name) => {
      const here = kinds[name].filter((s) => Math.min(9, Math.floor(10 * s.chance)) === tenth)
      return here.length === 0
        ? ['', '', '0']
        : [mean(here.map((s) => s.chance)).toFixed(3), share(here.map((s) => s.true)).toFixed(3), String(here.length)]
    })
    lines.push(`| ${(tenth / 10).toFixed(1)}–${((tenth + 1) / 10).toFixed(1)} | ${cells.join(' | ')} |`)
  }
  return lines
}
