import { FELT_NAME } from '@/core/messages/comfort'
import { STORY_PARTS, type Story, type StoryAsked, type StoryItem } from '@/server/pages/story'
import { formatDate } from '@/server/studio/day'

/** A rider's story in words and points; times in ms. */
export type StoryPage = StoryAsked &
  Readonly<{
    isEmpty: boolean
    more: boolean
    items: readonly (Omit<StoryItem, 'at'> & Readonly<{ date: string }>)[]
    lines: readonly Readonly<{ name: string; points: readonly Readonly<{ ms: number; rating: number }>[] }>[]
    knees: readonly Readonly<{ ms: number; deg: number }>[]
    changes: readonly Readonly<{ ms: number; said: string }>[]
    rides: readonly number[]
    /** The window the school wants the knee in, degrees. */
    kneeWindowDeg: readonly [number, number]
  }>

/** Lines that can be told apart in one drawing. */
const MAX_LINES = 4

/** The furthest page anybody turns to. */
const MAX_PAGES = 1000

type Query = Readonly<Record<string, string | string[] | undefined>>

/** Which lines and which page an address asks for; what it does not say is everything, from the latest. */
export function storyAsked({ part, page }: Query): StoryAsked {
  const number = Number(page ?? 0)
  return {
    part: STORY_PARTS.find((one) => one === part) ?? 'all',
    page: Number.isInteger(number) && number >= 0 && number <= MAX_PAGES ? number : 0,
  }
}

export function storyPage(
  story: Story,
  asked: StoryAsked,
  timeZone: string,
  kneeWindowDeg: readonly [number, number],
): StoryPage {
  const names = [...new Set(story.felt.map(({ what }) => what))]
  const lines = names
    .map((what) => ({
      name: FELT_NAME[what],
      points: story.felt.filter((one) => one.what === what).map(({ at, rating }) => ({ ms: at.getTime(), rating })),
    }))
    .sort((a, b) => b.points.length - a.points.length)
    .slice(0, MAX_LINES)
  return {
    ...asked,
    isEmpty: story.isEmpty,
    more: story.more,
    items: story.items.map(({ at, ...item }) => ({ ...item, date: formatDate(at, timeZone) })),
    lines,
    knees: story.knees.map(({ at, deg }) => ({ ms: at.getTime(), deg })),
    changes: story.changes.map(({ at, said }) => ({ ms: at.getTime(), said })),
    rides: story.rides.map((at) => at.getTime()),
    kneeWindowDeg,
  }
}
