import { createRng } from '../../core/base/rng'
import { signNamed } from '../../core/classes/watch/signs'
import { replaceAssignments } from '../../server/classes/assignments'
import { addClass, changeClass } from '../../server/classes/classes'
import { addNote, changeNote } from '../../server/classes/notes'
import { bookRider } from '../../server/classes/roster'
import { addLook, addRoomCue } from '../../server/classes/watch'
import { dayAfter, momentAt, weekOf } from '../../server/studio/day'
import { studioDay } from '../../core/messages/words/dates'
import { BLOCKS, ROOM, STUDIO } from '../netloftHall'
import { DAY_MS, daysBefore, SEED, WEEKS, WITHOUT_NUMBERS, type Hall } from './hall'

/** The saddle of this bike points to the left: its riders are sore on that side. */
const TWISTED_BIKE = 19
/** The cue for this sign works more often than the others. */
const GOOD_CUE = 'shrugged'
const CUED_SIGNS = ['shrugged', 'toesDown', 'kneesOut', 'bouncing', 'turnedHead', 'rounded', 'lockedElbows'].filter(
  (sign) => signNamed(sign) !== undefined,
)
/** Share of cues that work, usual and for the good one; ours. */
const ANSWER_PROBABILITY = { usual: 0.3, good: 0.85 }
const WEEKLY = [
  { day: 1, time: '07:00', title: 'Dawn Ride', minutes: 45 },
  { day: 2, time: '12:15', title: 'Noon Spin', minutes: 30 },
  { day: 3, time: '18:00', title: 'Dusk Ride', minutes: 45 },
  { day: 6, time: '09:30', title: 'Long Ride', minutes: 75 },
] as const

/** Four classes a week, a dozen riders and more each, with signs, cues and complaints. */
export async function addClasses(hall: Hall): Promise<void> {
  const { now } = hall
  const monday = weekOf(studioDay(now, STUDIO.timeZone))
  for (let week = WEEKS; week >= 0; week--)
    for (const [c, one] of WEEKLY.entries()) {
      const startsAt = momentAt(dayAfter(monday, one.day - 7 * week), one.time, STUDIO.timeZone)
      const endsAt = new Date(startsAt.getTime() + one.minutes * 60_000)
      const days = (now.getTime() - endsAt.getTime()) / DAY_MS
      // The base data has the classes of yesterday and the days to come.
      if (days > 1.2 && days < WEEKS * 7) await addPastClass(hall, { ...one, week, c, startsAt, endsAt })
    }
}

type PastClass = Readonly<{ week: number; c: number; title: string; minutes: number; startsAt: Date; endsAt: Date }>

async function addPastClass({ db, scopes, bikes, riders }: Hall, past: PastClass): Promise<void> {
  const { week, c, title, minutes, startsAt, endsAt } = past
  const random = createRng(SEED + 1000 + 10 * week + c)
  const scope = scopes[(week + c) % 2]
  const id = `history-class-${week}-${c}`
  const facts = { id, title, startsAt, endsAt, roomId: ROOM.id, teacherId: scope.userId }
  await addClass(db, scope, facts, daysBefore(startsAt, 10))
  if (minutes === 45) await changeClass(db, scope, id, { blocks: BLOCKS })
  const usable = bikes.filter(({ openFaults }) => openFaults === 0)
  const who = shuffled(riders.slice(0, WITHOUT_NUMBERS), random).slice(0, 12 + Math.floor(5 * random.uniform()))
  const seats = new Map(shuffled(usable, random).map((bike, i) => [bike.id, who[i]?.id]))
  const taken = new Map([...seats].flatMap(([bikeId, rider]) => (rider ? [[bikeId, rider] as const] : [])))
  for (const memberIdOf of taken.values())
    await bookRider(db, scope, { classId: id, memberId: memberIdOf, state: 'here', comesMinBefore: 10 }, startsAt)
  await replaceAssignments(db, scope, id, taken, startsAt)
  const numberOf = new Map(usable.map((bike) => [bike.id, bike.number]))
  let n = 0
  for (const [bikeId, rider] of taken) {
    const minute = 4 + Math.floor((minutes - 10) * random.uniform())
    const at = new Date(startsAt.getTime() + minute * 60_000)
    const note = { memberId: rider, bikeId, classId: id, minute, createdAt: at }
    const isTwisted = numberOf.get(bikeId) === TWISTED_BIKE
    if (random.uniform() < (isTwisted ? 0.25 : 0.025)) {
      const side = isTwisted || random.uniform() < 0.5 ? 'left' : 'right'
      const felt = { region: 'feltSaddle', sign: 'felt', side, score: 2 + Math.floor(3 * random.uniform()) } as const
      await addNote(db, scope, { id: `${id}-felt-${n++}`, ...note, ...felt })
    } else if (random.uniform() < 0.05) {
      const region = ['feltLowBack', 'feltHands', 'feltNeck', 'feltKneeFront'][n % 4]
      const felt = { region, sign: 'felt', side: 'both', score: 2 + Math.floor(4 * random.uniform()) } as const
      await addNote(db, scope, { id: `${id}-felt-${n++}`, ...note, ...felt })
    } else if (random.uniform() < 0.3) {
      const sign = CUED_SIGNS[Math.floor(CUED_SIGNS.length * random.uniform())]
      const { region, sided } = signNamed(sign)!
      const noteId = `${id}-note-${n++}`
      const seen = { region, sign, side: sided ? 'left' : 'both', strength: 'clear', cued: true } as const
      await addNote(db, scope, { id: noteId, ...note, ...seen })
      const isAnswered = random.uniform() < (sign === GOOD_CUE ? ANSWER_PROBABILITY.good : ANSWER_PROBABILITY.usual)
      await changeNote(db, scope, noteId, { held: isAnswered }, new Date(at.getTime() + 150_000))
    } else if (week < 3 && random.uniform() < 0.7)
      await addLook(db, scope, {
        id: `${id}-look-${n++}`,
        classId: id,
        memberId: rider,
        bikeId,
        numbers: false,
        createdAt: at,
      })
  }
  if (week < 4) {
    const concerned = [...taken.values()].slice(0, 4)
    const { cue } = signNamed(GOOD_CUE)!
    const at = new Date(startsAt.getTime() + 15 * 60_000)
    await addRoomCue(db, scope, { id: `${id}-room`, classId: id, sign: GOOD_CUE, cue, concerned, createdAt: at })
  }
}

/** In a new order, by the draws of `random` (Fisher and Yates). */
function shuffled<T>(all: readonly T[], random: ReturnType<typeof createRng>): T[] {
  const list = [...all]
  for (let i = list.length - 1; i > 0; i--) {
    const j = Math.floor((i + 1) * random.uniform())
    ;[list[i], list[j]] = [list[j], list[i]]
  }
  return list
}
