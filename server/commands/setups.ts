import { Type } from '@sinclair/typebox'
import { axesOf, type BikeType } from '../../core/bikes/bike/bike'
import { positionsOf } from '../../core/bikes/scale/scale'
import type { Label, Marks } from '../../core/base/conventions'
import type { Evidence } from '../../core/riders/evidence/registry'
import { starterSchema } from '../../core/riders/plans/plan'
import { settingsIssues } from '../../core/operations/dispatch'
import { PURPOSES } from '../../core/setups/register/entry'
import { closed, oneOf } from '../../core/base/schema'
import type { School } from '../../core/base/school/school'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import {
  appendEvidence as append,
  finishSetup as finish,
  MAX_ROWS,
  withdrawEvidence as withdraw,
} from '../setups/evidence'
import type { RecordResult, StoredEvidence } from '../setups/evidence'
import * as setups from '../setups/setups'
import { changeSetupSchool as recordSetupSchool } from '../setups/setupSchool'
import { validateRow } from '../setups/validateRow'
import { hasHealthAnswer } from '../../core/riders/evidence/healthAnswers'
import { mayNote } from '../riders/consent'
import { recordPlan } from '../riders/plans'
import { formatDayAndTime } from '../../core/messages/words/dates'
import { getStudio } from '../studio/studio'
import {
  checkedInRun,
  defineCommand,
  defineQuery,
  idSchema,
  SAVED,
  refused,
  type CommandOutcome,
} from './defineCommand'

/** Starts a set-up of a member on a bike, or resumes the one left open there. */
export const startSetup = defineCommand({
  name: 'setups.startSetup',
  permission: 'setUpRiders',
  schema: closed({ memberId: idSchema, bikeId: idSchema }),
  run: async (tx, scope, { memberId, bikeId }, { id, now }) => {
    const result = await setups.startSetup(tx, scope, { id, memberId, bikeId }, now)
    return result.outcome === 'kept' ? { outcome: 'kept', setupId: result.id } : refused({ code: 'bikeGone' })
  },
})

/** Records that this one set-up goes by another school than the studio's, from now on. */
export const changeSetupSchool = defineCommand({
  name: 'setups.changeSchool',
  permission: 'setUpRiders',
  ownsId: true,
  schema: closed({ setupId: idSchema, school: checkedInRun<Partial<School>>() }),
  run: async (tx, scope, { setupId, school }, { id, now }) => {
    const issues = settingsIssues({ school, costs: {}, learns: true })
    if (issues.length > 0) return refused({ code: 'setupEnded' })
    const { outcome } = await recordSetupSchool(tx, scope, { id, setupId, school }, now)
    return outcome === 'kept' ? SAVED : refused({ code: 'setupEnded' })
  },
})

/** Starts a new set-up of the same rider on the same bike from rows of one that was saved meanwhile. */
export const continueSetup = defineCommand({
  name: 'setups.continueSetup',
  permission: 'setUpRiders',
  schema: closed({
    setupId: idSchema,
    rows: Type.Array(Type.Unsafe<StoredEvidence>({ type: 'object', required: ['id'], properties: { id: idSchema } }), {
      maxItems: MAX_ROWS,
    }),
  }),
  run: async (tx, scope, { setupId, rows }, { now }) => {
    const result = await setups.continueSetup(tx, scope, { setupId, rows }, now)
    return result.outcome === 'kept' ? { outcome: 'kept', setupId: result.id } : refused({ code: 'cannotContinue' })
  },
})

/** A member's earlier set-ups, to compare schools. */
export const historyOf = defineQuery({
  name: 'setups.historyOf',
  permission: 'manageStudio',
  schema: closed({ memberId: idSchema }),
  run: async (db, scope, { memberId }, now) => ({
    outcome: 'found',
    history: await setups.listHistory(db, scope, memberId, now),
  }),
})

/** Appends a row of evidence to a set-up; answers about health only with the rider's consent. */
export const appendEvidence = defineCommand({
  name: 'setups.appendEvidence',
  permission: 'setUpRiders',
  offline: 'appendEvidence',
  ownsId: true,
  schema: Type.Object({
    setupId: idSchema,
    row: checkedInRun<Evidence>(),
    /** The rider agrees to notes with this answer. */
    agrees: Type.Optional(Type.Boolean()),
  }),
  run: async (tx, scope, { setupId, row, agrees = false }, { id, now, observedAt }) => {
    const setup = await setups.findSetup(tx, scope, setupId)
    if (!setup) return refused({ code: 'noSetup' })
    const checked = validateRow(setup.type, row)
    if ('reasons' in checked) return refused({ code: 'badRow', reasons: checked.reasons })
    if (hasHealthAnswer(checked.row) && !(await mayNote(tx, scope, setup.memberId, agrees, observedAt)))
      return refused({ code: 'needsConsent' })
    return recorded(tx, scope, setup, await append(tx, scope, setupId, { id, row: checked.row }, now), now)
  },
})

/** Withdraws a row of evidence. */
export const withdrawEvidence = defineCommand({
  name: 'setups.withdrawEvidence',
  permission: 'setUpRiders',
  offline: 'withdrawEvidence',
  schema: Type.Object({ setupId: idSchema, rowId: idSchema }),
  run: async (tx, scope, { setupId, rowId }, { now }) => {
    const setup = await setups.findSetup(tx, scope, setupId)
    if (!setup) return refused({ code: 'noSetup' })
    return recorded(tx, scope, setup, await withdraw(tx, scope, setupId, rowId, now), now)
  },
})

/** Saves the numbers of a set-up, which ends it. */
export const finishSetup = defineCommand({
  name: 'setups.finishSetup',
  permission: 'setUpRiders',
  offline: 'finishSetup',
  ownsId: true,
  schema: Type.Object({
    setupId: idSchema,
    marks: checkedInRun<Marks>(),
    purpose: Type.Optional(oneOf(PURPOSES)),
    /** Of numbers low to begin with: the seat height to raise to later. */
    starter: Type.Optional(starterSchema),
  }),
  run: async (tx, scope, { setupId, marks, purpose = 'usual', starter }, { id, now }) => {
    const setup = await setups.findSetup(tx, scope, setupId)
    if (!setup) return refused({ code: 'noSetup' })
    const checked = validateRow(setup.type, { kind: 'set', at: marks ?? {} })
    if ('reasons' in checked) return refused({ code: 'badRow', reasons: checked.reasons })
    const at = checked.row.at ?? {}
    if (axesOf(setup.type).some((axis) => at[axis] === undefined)) return refused({ code: 'incomplete' })
    const finished = await finish(tx, scope, setupId, { id, marks: at, purpose }, now)
    if (finished.outcome === 'kept' && starter && isRaise(setup.type, at.seatHeight, starter.to)) {
      const plan = { kind: 'starter', lineId: setup.lineId, ...starter } as const
      await recordPlan(tx, scope, { id, memberId: setup.memberId, plan }, now)
    }
    return recorded(tx, scope, setup, finished, now)
  },
})

/** Whether a seat height of a type is above another. */
function isRaise({ axes }: BikeType, from: Label | undefined, to: Label): boolean {
  const position = (label: Label) => positionsOf(axes.seatHeight.scale).find((one) => one.label === label)
  const [here, there] = [position(from ?? ''), position(to)]
  return here !== undefined && there !== undefined && there.mm > here.mm
}

async function recorded(
  db: DbExecutor,
  scope: Scope,
  setup: setups.Setup,
  done: RecordResult,
  now: Date,
): Promise<CommandOutcome> {
  switch (done.outcome) {
    case 'kept':
      return SAVED
    case 'gone':
      return refused({ code: 'noSetup' })
    case 'idTaken':
      return refused({ code: 'entryTaken' })
    case 'finished': {
      const { timeZone } = await getStudio(db, scope)
      const time = formatDayAndTime(done.finishedAt, timeZone, now)
      return refused({ code: 'finished', by: done.finishedBy, time, marks: done.marks, bikeType: setup.type })
    }
    default:
      return refused({ code: done.outcome })
  }
}
