import { exercisesFor } from '../../core/comfort/programme/programme'
import { studioDay } from '../../core/messages/words/dates'
import { listNotesOfMember, type Note } from '../../server/classes/notes'
import { giveProgramme, tickExercise } from '../../server/comfort/programmes'
import { openLink } from '../../server/riders/memberPage/links'
import { STUDIO } from '../netloftHall'
import { daysBefore, memberId, type Hall } from './hall'

/** Exercises given to a rider of this index so many days ago, and the days ago on which the first was ticked. */
const GIVEN = [
  { rider: 4, days: 40, ticked: [39, 37, 35, 32, 30, 28, 25, 22, 20, 18, 15, 13] },
  { rider: 6, days: 24, ticked: [23, 21, 19, 16, 14, 12, 9, 7, 5, 2] },
  { rider: 9, days: 55, ticked: [54, 52, 50, 48, 46, 44, 41, 39, 36, 34, 31, 29] },
] as const

/** Some weeks of exercises for a sign of each of these riders, ticked on their own pages. */
export async function addProgrammes({ db, now, scopes }: Hall): Promise<void> {
  for (const [n, { rider, days, ticked }] of GIVEN.entries()) {
    const [id, member, scope] = [`history-programme-${n}`, memberId(rider), scopes[n % 2]]
    const at = daysBefore(now, days)
    const sign = mostSeen(await listNotesOfMember(db, scope, member), at)
    if (!sign) continue
    const exercises = exercisesFor({ sign }).slice(0, 2)
    const given = { about: { sign }, exercises: exercises.map((one) => one.id), weeks: 4 } as const
    if ((await giveProgramme(db, scope, { id, memberId: member, ...given }, at)).outcome !== 'kept') continue
    const { id: linkId } = (await openLink(db, scope, member, at))!
    const owner = { linkId, studioId: STUDIO.id, memberId: member, name: '', opens: 'everything' } as const
    for (const ago of ticked) {
      const done = daysBefore(now, ago)
      const tick = { id: `${id}-${ago}`, programmeId: id, item: 0, day: studioDay(done, STUDIO.timeZone) }
      await tickExercise(db, owner, tick, done)
    }
  }
}

/** The sign whose cue was looked at twice in most classes, before that day and since, of those with exercises. */
function mostSeen(notes: readonly Note[], at: Date): string | undefined {
  const signs = [...new Set(notes.map(({ sign }) => sign))].filter((sign) => exercisesFor({ sign }).length > 0)
  const seen = (sign: string) => {
    const looks = notes.filter((note) => note.sign === sign && note.cued && note.held !== null)
    const before = looks.filter(({ createdAt }) => createdAt < at).length
    return [Math.min(before, looks.length - before), looks.length] as const
  }
  return signs.toSorted((a, b) => seen(b)[0] - seen(a)[0] || seen(b)[1] - seen(a)[1]).at(0)
}
