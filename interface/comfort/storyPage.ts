import { FELT_NAME } from '@/core/messages/comfort'
import type { Story, StoryItem } from '@/server/comfort/story'
import { formatDate } from '@/server/studio/day'

/** A rider's story in words and points; times in ms. */
export type StoryPage = Readonly<{
  items: readonly (Omit<StoryItem, 'at'> & Readonly<{ date: string }>)[]
  lines: readonly Readonly<{ name: string; points: readonly Readonly<{ ms: number; rating: number }>[] }>[]
  knees: readonly Readonly<{ ms: number; deg: number }>[]
  changes: readonly Readonly<{ ms: number; said: string }>[]
  rides: readonly number[]
  /** The window the school wants the knee in, degrees. */
  kneeWindowDeg: readonly [number, number]
}>

/** Lines that can be told apart in one drawing. */
const MOST_LINES = 4

export function storyPage(story: Story, timeZone: string, kneeWindowDeg: readonly [number, number]): StoryPage {
  const names = [...new Set(story.felt.map(({ what }) => what))]
  const lines = names
    .map((what) => ({
      name: FELT_NAME[what],
      points: story.felt.filter((one) => one.what === what).map(({ at, rating }) => ({ ms: at.getTime(), rating })),
    }))
    .sort((a, b) => b.points.length - a.points.length)
    .slice(0, MOST_LINES)
  return {
    items: story.items.map(({ at, ...item }) => ({ ...item, date: formatDate(at, timeZone) })),
    lines,
    knees: story.knees.map(({ at, deg }) => ({ ms: at.getTime(), deg })),
    changes: story.changes.map(({ at, said }) => ({ ms: at.getTime(), said })),
    rides: story.rides.map((at) => at.getTime()),
    kneeWindowDeg,
  }
}
