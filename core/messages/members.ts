/** Why a name was not taken, or what is to be decided first. */
export type NameRefusal =
  | Readonly<{ code: 'notAllowed' | 'malformed' | 'empty' | 'renamedMeanwhile' }>
  | Readonly<{ code: 'tooLong'; maxLength: number }>
  | Readonly<{ code: 'sameName'; name: string }>
  | Readonly<{ code: 'addedBefore'; name: string; as: string }>

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
    case 'tooLong':
      return `The name is longer than ${refusal.maxLength} letters; shorten it.`
    case 'sameName':
      return `There is already a ${refusal.name}. Add another one of that name?`
    case 'addedBefore':
      return `An earlier try added this member as ${refusal.as}. Correct the name to ${refusal.name}?`
  }
}
