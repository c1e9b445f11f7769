/** What is not seen and means nothing in a name: control characters, and marks of direction or of no width. */
const UNSEEN = /[\p{Cc}\p{Co}\p{Cn}\u00AD\u200B\u200E\u200F\u202A-\u202E\u2060-\u206F\uFEFF\uFFF9-\uFFFB]/gu
/** Joiners belong between letters in some scripts, and nowhere else. */
const LOOSE_JOINER = /(?<!\p{L}\p{M}*)[\u200C\u200D]|[\u200C\u200D](?!\p{L})/gu

/**
 * A name as stored: one kind of space, single; composed letters; without what cannot be seen. Empty where nothing
 * is left that one could read. `normalizeName(' Jo\u200B  Marsh\0')` → 'Jo Marsh'.
 */
export function normalizeName(typed: string): string {
  const tidy = typed
    .normalize('NFC')
    .replace(/\s+/gu, ' ')
    .replace(UNSEEN, '')
    .replace(LOOSE_JOINER, '')
    .replace(/ +/g, ' ')
    .trim()
  return /[\p{L}\p{N}]/u.test(tidy) ? tidy : ''
}
