import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { isUnmeasured } from '@/core/calibration/parameters'
import { schoolOf } from '@/core/school/school'
import { REFERRAL } from '@/core/watch/comfort'
import { OutboxProvider } from '@/interface/outbox/OutboxProvider'
import { SetupView } from '@/interface/setup/SetupView'
import { requirePermission } from '@/server/accounts/session'
import { listTypes } from '@/server/bikes/versions'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { findMember } from '@/server/members/members'
import { currentEntries } from '@/server/register/register'
import { listEvidence } from '@/server/setups/evidence'
import { learnedPrior, observerOf, observerErrorOf } from '@/server/setups/learned'
import { findSetupSchool } from '@/server/setups/setupSchool'
import { formatDate, formatTime } from '@/server/studio/day'
import { riderContext } from '@/server/pages/riderContext'
import { findPreviousNumbers, findSetup, listHistory } from '@/server/setups/setups'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Set-up' }

/** So many other types are asked about where a bike ends. */
const MAX_TYPES = 12

type Asked = Readonly<{
  params: Promise<{ id: string }>
  searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>
}>

export default async function SetupPage({ params, searchParams }: Asked) {
  const person = await requirePermission('setUpRiders')
  const [{ id }, asked] = [await params, await searchParams]
  const db = database()
  const setup = await findSetup(db, person, id)
  if (!setup) notFound()
  const [studio, member, rows, history] = await Promise.all([
    getStudio(db, person),
    findMember(db, person, setup.memberId),
    listEvidence(db, person, id),
    setup.finishedAt ? [] : listHistory(db, person, setup.memberId, new Date()),
  ])
  if (!member) notFound()
  const [ownSchool, saved, entries, types] = await Promise.all([
    findSetupSchool(db, person, id),
    setup.finishedAt ? null : findPreviousNumbers(db, person, setup),
    setup.finishedAt ? [] : currentEntries(db, person, [setup.memberId]),
    listTypes(db, person),
  ])
  const context = setup.finishedAt ? null : await riderContext(db, person, setup.memberId, new Date())
  const elsewhere = entries
    .filter(({ lineId, purpose }) => lineId !== setup.lineId && purpose === 'usual')
    .map(({ type, marks }) => ({ type: type.name, marks }))
  const otherTypes = types.map(({ bikeType }) => bikeType).filter(({ name }) => name !== setup.type.name)
  const previous = saved && { ...saved, when: formatDate(saved.at, studio.timeZone) }
  const [learned, eye] = setup.finishedAt
    ? [null, null]
    : await Promise.all([learnedPrior(db, person, studio), observerErrorOf(db, person)])
  return (
    <OutboxProvider author={{ id: person.userId, name: person.name }}>
      <SetupView
        setupId={id}
        member={member}
        bike={{
          id: setup.bikeId,
          number: setup.bikeNumber,
          machineCalibration: setup.machineCalibration,
          type: setup.type,
          landmarks: setup.equipment.landmarks,
        }}
        school={schoolOf({ ...studio.school, ...ownSchool })}
        ownSchool={ownSchool}
        costs={studio.costs ?? {}}
        prior={learned?.prior ?? {}}
        observer={eye ? observerOf(eye) : undefined}
        history={history}
        elsewhere={elsewhere.slice(0, MAX_TYPES)}
        otherTypes={otherTypes.slice(0, MAX_TYPES)}
        previous={previous}
        gauge={process.env.ANGLE_GAUGE_URL !== undefined}
        about={
          context && {
            stop: context.stop ? { why: context.stop, referral: studio.referral ?? REFERRAL } : null,
            lines: [
              ...(isUnmeasured(setup.machineCalibration)
                ? [`${setup.type.name} was never measured. No tape? Go on: two readings in the saddle will do.`]
                : []),
              ...context.lines,
              ...(context.seat && context.seat.bikeId !== setup.bikeId
                ? [`Sits on bike ${context.seat.number} at ${formatTime(context.seat.startsAt, studio.timeZone)}`]
                : []),
            ],
          }
        }
        told={asked.told === '1'}
        back={isId(asked.class) ? `/class/${asked.class}` : `/riders/${setup.memberId}`}
        stored={rows}
        finished={setup.finishedAt !== null}
      />
    </OutboxProvider>
  )
}
