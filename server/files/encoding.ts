import { analyse } from 'chardet'
import iconv from 'iconv-lite'

/**
 * Non-ASCII letters of languages, by code page. A list of names is too short for letter statistics; the share of
 * letters that belong to one language is more reliable.
 */
const LANGUAGES: Readonly<Record<string, readonly string[]>> = {
  'windows-1252': ['åäöæøé', 'äöüß', 'àâçèéêëîïôùûœæÿ', 'áéíóúñüãõçâêôà', 'àèéìòù', 'ðþáéíóúýæö', 'éëïèüö'],
  'windows-1250': ['ąćęłńóśźż', 'áčďéěíňóřšťúůýž', 'áäčďéíĺľňóôŕšťúýž', 'áéíóöőúüű', 'čćđšž', 'ăâîşţșț'],
  'windows-1257': ['ąčęėįšųūž', 'āčēģīķļņšūžōŗ', 'äõöüšž'],
  'windows-1254': ['çğıiöşüâ'],
}
/** Weight of the union of all western languages: one list often mixes them. */
const MIXED_WEST = 0.9
const PAGE_OF: Readonly<Record<string, string>> = {
  'iso-8859-1': 'windows-1252',
  'iso-8859-15': 'windows-1252',
  'iso-8859-2': 'windows-1250',
  'iso-8859-13': 'windows-1257',
  'iso-8859-9': 'windows-1254',
}
/** Statistical guesses within this confidence difference (of 100) are ranked by their letters. */
const CLOSE = 10

/** Detects the encoding from the first bytes: UTF-8 if valid, else the code page that yields plausible words. */
export function encodingOf(head: Buffer): string {
  if (isUtf8(head)) return 'utf-8'
  const guesses = analyse(head).map(({ name, confidence }) => ({ name: name.toLowerCase(), confidence }))
  const [first] = guesses
  const supported = guesses.filter(({ name }) => (PAGE_OF[name] ?? name) in LANGUAGES)
  if (first && first.name !== supported[0]?.name && first.confidence > CLOSE)
    return iconv.encodingExists(first.name) ? first.name : 'windows-1252'
  // Each of these code pages is a candidate, whether or not the statistic lists it.
  const all = [...supported, ...Object.keys(LANGUAGES).map((name) => ({ name, confidence: 0 }))]
  const readable = all.filter(({ name }) => !SYMBOL_IN_WORD.test(iconv.decode(head, name)))
  const best = readable[0]?.confidence ?? 0
  const close = readable.filter(({ confidence }) => confidence >= best - CLOSE)
  const ranked = close.map(({ name }) => ({ name, fits: fitOf(iconv.decode(head, name), PAGE_OF[name] ?? name) }))
  return ranked.reduce((a, b) => (b.fits > a.fits ? b : a), ranked[0] ?? { name: 'windows-1252', fits: 0 }).name
}

/** A symbol inside a word, or an unassigned character. */
const SYMBOL_IN_WORD = /\p{L}[^\p{L}\p{M}\p{P}\p{Z}\p{N}\x00-\x7f]\p{L}|\p{L}[²³¹¼½¾]\p{L}?|[\x80-\x9f\ufffd]/u

/** Largest share of non-ASCII letters that belong to one language of a code page, 0 to 1. */
function fitOf(text: string, page: string): number {
  const letters = (text.toLowerCase().match(/\p{L}/gu) ?? []).filter((letter) => letter > '\x7f')
  if (letters.length === 0) return 0
  const share = (alphabet: string) => letters.filter((letter) => alphabet.includes(letter)).length / letters.length
  const languages = LANGUAGES[page]
  return Math.max(...languages.map(share), page === 'windows-1252' ? MIXED_WEST * share(languages.join('')) : 0)
}

/** Valid as UTF-8, but for a letter cut in two where the sample ends. */
function isUtf8(head: Buffer): boolean {
  if ((head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff)) return false
  for (const cut of [0, 1, 2, 3])
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(head.subarray(0, head.length - cut))
      return true
    } catch {
      // Retry without the last byte.
    }
  return false
}
