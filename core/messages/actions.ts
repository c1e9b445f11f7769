import { capitalized, formatList } from './phrases'

/** What an import of types did: "Imported. New: Sorrel; unchanged: Bracken and Thrift." */
export function formatImport(result: Readonly<Record<'added' | 'changed' | 'unchanged', readonly string[]>>): string {
  const { added, changed, unchanged } = result
  if (added.length + changed.length === 0) return 'Nothing to import: all these types are here already.'
  const parts = [
    ['new', added],
    ['changed', changed],
    ['unchanged', unchanged],
  ] as const
  const told = parts.flatMap(([word, names]) => (names.length > 0 ? [`${word}: ${formatList(names)}`] : []))
  return `Imported. ${capitalized(told.join('; '))}.`
}

/** What a page says that somebody's role does not see. */
export const notAllowedText = (role: string): string =>
  `Your role in this studio is ${role}, and this page is for others. ` +
  'Nothing was lost; a manager can say who may do what.'
