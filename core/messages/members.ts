import { formatList } from './phrases'

/** Why a name was not taken, or what is to be decided first. */
export type NameRefusal =
  | Readonly<{
      code:
        | 'notAllowed'
        | 'malformed'
        | 'empty'
        | 'renamedMeanwhile'
        | 'changedMeanwhile'
        | 'noSuchMember'
        | 'sameMember'
        | 'numberTooLong'
        | 'notAnEmail'
        | 'notAHeight'
    }>
  | Readonly<{ code: 'numberTaken'; number: string }>
  | Readonly<{ code: 'tooLong'; maxLength: number }>
  | Readonly<{ code: 'sameName'; name: string }>
  | Readonly<{ code: 'addedBefore'; name: string; as: string }>

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

/** The refusal as a sentence. */
export function formatNameRefusal(refusal: NameRefusal): string {
  switch (refusal.code) {
    case 'notAllowed':
      return 'Your role in this studio does not allow it.'
    case 'malformed':
      return 'The request was cut short; try again.'
    case 'empty':
      return 'A member needs a name.'
    case 'renamedMeanwhile':
      return 'This member has another name by now; open their page.'
    case 'changedMeanwhile':
      return 'Somebody else changed this member meanwhile. Open the page again to see it.'
    case 'noSuchMember':
      return 'There is no such member any more.'
    case 'sameMember':
      return 'This is the same member. Choose the other one.'
    case 'numberTooLong':
      return 'The member number is longer than 40 letters.'
    case 'notAnEmail':
      return 'This is no e-mail address, such as ada@example.org.'
    case 'notAHeight':
      return 'This is no height of an adult. Write 168, 168 cm, 1.68 m or 5′6″.'
    case 'numberTaken':
      return `Another member has the number ${refusal.number}.`
    case 'tooLong':
      return `The name is longer than ${refusal.maxLength} letters; shorten it.`
    case 'sameName':
      return `There is already a ${refusal.name}. Add another one of that name?`
    case 'addedBefore':
      return `An earlier try added this member as ${refusal.as}. Correct the name to ${refusal.name}?`
  }
}
