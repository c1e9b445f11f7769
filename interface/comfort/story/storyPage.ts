import { formatNote } from '@/core/messages/classes/watch'
import { FELT_NAME, formatComplaint, formatRatings, formatWhen, OUTCOME_TEXT } from '@/core/messages/comfort/comfort'
import { formatBasis, formatMoved, UNCHANGED } from '@/core/messages/setups/register'
import { capitalized } from '@/core/messages/words/phrases'
import { STORY_PARTS, type Story, type StoryQuery, type StoryItem } from '@/server/pages/comfort/story'
import { formatDate } from '@/core/messages/words/dates'

type ShownKind = Exclude<StoryItem['kind'], 'felt'>

/** A rider's story in words and points; times in ms. */
export type StoryPage = StoryQuery &
  Readonly<{
    isEmpty: boolean
    more: boolean
    items: readonly Readonly<{ id: string; kind: ShownKind; date: string; title: string; more: string }>[]
    lines: readonly Readonly<{ name: string; points: readonly Readonly<{ ms: number; rating: number }>[] }>[]
    knees: readonly Readonly<{ ms: number; deg: number }>[]
    changes: readonly Readonly<{ ms: number; text: string }>[]
    rides: readonly number[]
    /** The window the school wants the knee in, degrees. */
    kneeWindowDeg: readonly [number, number]
  }>

/** Maximum number of distinguishable lines in one drawing. */
const MAX_LINES = 4

/** The furthest page anybody turns to. */
const MAX_PAGES = 1000

type Query = Readonly<Record<string, string | string[] | undefined>>

/** Lines and page of an address; by default all lines, from the latest. */
export function storyQuery({ part, page }: Query): StoryQuery {
  const number = Number(page ?? 0)
  return {
    part: STORY_PARTS.find((one) => one === part) ?? 'all',
    page: Number.isInteger(number) && number >= 0 && number <= MAX_PAGES ? number : 0,
  }
}

export function storyPage(story: Story, query: StoryQuery): StoryPage {
  const { timeZone, kneeWindowDeg } = story
  const names = [...new Set(story.felt.map(({ what }) => what))]
  const lines = names
    .map((what) => ({
      name: FELT_NAME[what],
      points: story.felt.filter((one) => one.what === what).map(({ at, rating }) => ({ ms: at.getTime(), rating })),
    }))
    .sort((a, b) => b.points.length - a.points.length)
    .slice(0, MAX_LINES)
  return {
    ...query,
    isEmpty: story.isEmpty,
    more: story.more,
    items: story.items.map((item) => ({
      id: item.id,
      kind: item.kind === 'felt' ? 'complaint' : item.kind,
      date: formatDate(item.at, timeZone),
      ...describeItem(item),
    })),
    lines,
    knees: story.knees.map(({ at, deg }) => ({ ms: at.getTime(), deg })),
    changes: story.changes.flatMap(({ at, type, before, after }) => {
      const text = formatMoved(type, before, after)
      return text && text !== UNCHANGED ? [{ ms: at.getTime(), text }] : []
    }),
    rides: story.rides.map((at) => at.getTime()),
    kneeWindowDeg,
  }
}

/** Number of ratings in the history of one rating. */
const LAST_RATINGS = 6

/** Title and second line of something recorded. */
function describeItem(item: StoryItem): Readonly<{ title: string; more: string }> {
  switch (item.kind) {
    case 'numbers': {
      const { entry, before, isRestored } = item
      const moved = formatMoved(entry.type, before, entry.marks)
      return {
        title: `${entry.type.name}: ${moved && moved !== UNCHANGED ? moved : 'numbers kept'}`,
        more: capitalized(formatBasis(entry.source, entry.basis, isRestored ? 'before' : null)),
      }
    }
    case 'note':
    case 'felt': {
      const { note, cue } = item
      const outcome = note.held === null ? '' : note.held ? ' It held.' : ' It did not hold.'
      return { title: capitalized(formatNote(note)), more: cue ? `“${cue}”${outcome}` : outcome.trim() }
    }
    case 'complaint': {
      const { line, handedTo } = item.complaint
      const parts = [formatWhen(item.complaint), line && `“${line}”`, handedTo && `Referred; told: ${handedTo}`]
      return { title: formatComplaint(item.complaint), more: parts.filter(Boolean).join('. ') }
    }
    case 'trial':
      return { title: item.trial.said, more: capitalized(item.trial.expects.join('; ')) }
    case 'rating': {
      const { trial, index } = item
      const upTo = trial.ratings.slice(Math.max(0, index - LAST_RATINGS + 1), index + 1).map(({ rating }) => rating)
      return {
        title: `${trial.ratings[index].rating} of 10 during the trial`,
        more: formatRatings(trial.ratingBefore, upTo, index >= LAST_RATINGS),
      }
    }
    case 'ended':
      return { title: `Trial over: ${OUTCOME_TEXT[item.trial.outcome!]}`, more: item.trial.said }
  }
}
