/** Whether every word typed begins some word of the name; accents and case do not count. `matches('Tove Kestrand', 'kes to')` → true. */
export function matches(name: string, typed: string): boolean {
  const words = plain(name).split(/[\s-]+/)
  return plain(typed)
    .split(/\s+/)
    .filter(Boolean)
    .every((part) => words.some((word) => word.startsWith(part)) || plain(name).includes(part))
}

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
