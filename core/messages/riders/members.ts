import { formatList } from '../words/phrases'

/** What merging one member into another would move, with what each has. */
export type MergeCounts = Readonly<{
  from: Readonly<{ name: string }>
  into: Readonly<{ name: string }>
  setups: number
  numbers: number
  notes: number
  classes: number
}>

/** What a merge does, in sentences, before it is done. */
export function formatMerge({ from, into, setups, numbers, notes, classes }: MergeCounts): string[] {
  const parts = [
    counted(setups, 'set-up'),
    counted(numbers, 'set of numbers', 'sets of numbers'),
    counted(notes, 'note'),
    counted(classes, 'class', 'classes'),
  ].flatMap((part) => part ?? [])
  return [
    parts.length === 0
      ? `${from.name} has no records. The entry goes away.`
      : `${formatList(parts)} of ${from.name} move to ${into.name}. ` +
        'Where both have numbers for the same bike, the later ones hold.',
    'The name goes away. This cannot be undone.',
  ]
}

const counted = (n: number, one: string, many = `${one}s`): string | null =>
  n === 0 ? null : `${n} ${n === 1 ? one : many}`
