import { capitalized, formatList } from '../words/phrases'

/** What an import of types did: "Imported. New: Sorrel; unchanged: Bracken and Thrift." */
export function formatImport(result: Readonly<Record<'added' | 'changed' | 'unchanged', readonly string[]>>): string {
  const { added, changed, unchanged } = result
  if (added.length + changed.length === 0) return 'Nothing to import: all these types are here already.'
  const parts = [
    ['new', added],
    ['changed', changed],
    ['unchanged', unchanged],
  ] as const
  const listed = parts.flatMap(([word, names]) => (names.length > 0 ? [`${word}: ${formatList(names)}`] : []))
  return `Imported. ${capitalized(listed.join('; '))}.`
}
