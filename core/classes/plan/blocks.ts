import type { Block } from './blocksSchema'
import type { Effort } from './blockWords'

export * from './blockWords'
export type { Block }

/** Beats a minute for turns a minute, and back. */
export const beatsOf = (rpm: number): number => 2 * rpm
export const rpmOf = (beats: number): number => beats / 2

/** Minutes of a class by its blocks. */
export const totalMinutes = (blocks: readonly Block[]): number => blocks.reduce((sum, { minutes }) => sum + minutes, 0)

/** The block that runs at a minute of the class, counted from 0; null before, after and without any. */
export function blockAt(blocks: readonly Block[], minute: number): Block | null {
  let from = 0
  for (const block of blocks) {
    if (minute >= from && minute < from + block.minutes) return block
    from += block.minutes
  }
  return null
}

/** Turns within this share of the plan's are on plan; ours. */
const ON_PLAN = 0.1
/** Slower than this under load the knees carry more (common practice, no source), turns a minute. */
const SLOW_RPM = 75

/** How the plan judges a sign: as planned, or a fault, and why. */
export type Judged = Readonly<{ counts: boolean; why: 'asPlanned' | 'offPlan' | 'kneesUnderLoad' | 'always' }>

/**
 * Whether something seen counts in the block that runs: a rounded back is meant where the block's spine is tucked by
 * turns; slow heavy legs are taught on purpose, though not to riders with knee notes.
 */
export function judgeSign(sign: string, block: Block | null, { kneeNotes = false } = {}): Judged {
  if (!block) return { counts: true, why: 'always' }
  if (sign === 'rounded' && block.spine === 'longAndTucked') return { counts: false, why: 'asPlanned' }
  if (sign === 'grinding') {
    if (kneeNotes) return { counts: true, why: 'kneesUnderLoad' }
    return block.rpm < SLOW_RPM && block.effort === 'hard'
      ? { counts: false, why: 'asPlanned' }
      : { counts: true, why: 'offPlan' }
  }
  return { counts: true, why: 'always' }
}

/** Whether legs turn with the plan; null where no block runs. */
export function judgeRpm(rpm: number, block: Block | null): 'onPlan' | 'behindBeat' | 'aheadOfBeat' | null {
  if (!block) return null
  if (rpm < block.rpm * (1 - ON_PLAN)) return 'behindBeat'
  return rpm > block.rpm * (1 + ON_PLAN) ? 'aheadOfBeat' : 'onPlan'
}

/** Remarks on a plan for its author. */
export type PlanRemark =
  | Readonly<{ code: 'longSeated'; minutes: number }>
  | Readonly<{ code: 'slowLong'; name: string; minutes: number }>
  /** Faster or slower than most legs turn well, turns a minute. */
  | Readonly<{ code: 'tooFast' | 'tooSlow'; name: string; rpm: number; mostRpm: number }>
  /** Heavy slow blocks one after the other: together they are long. */
  | Readonly<{ code: 'slowInARow'; count: number; minutes: number }>
  | Readonly<{ code: 'otherLength'; planMin: number; classMin: number }>
  | Readonly<{ code: 'noEasyStart' | 'noEasyEnd' }>

/** Longer in the saddle without standing up a break is due (common practice, no source), minutes. */
const MAX_SEATED = 20
/** Heavy slow blocks are short (common practice, no source), minutes. */
const MAX_SLOW = 6
/**
 * Most time is spent at 80 to 110 turns, climbs at 60 to 75; standing legs turn slower (common practice, no source).
 */
const MAX_RPM = { seated: 110, standing: 100 } as const
const MIN_RPM = 60

export function planRemarks(blocks: readonly Block[], classMin: number): PlanRemark[] {
  if (blocks.length === 0) return []
  const remarks: PlanRemark[] = []
  const planMin = totalMinutes(blocks)
  if (Math.abs(planMin - classMin) > 0.5) remarks.push({ code: 'otherLength', planMin, classMin })
  let seated = 0
  let longest = 0
  for (const { posture, minutes } of blocks) {
    seated = posture === 'seated' ? seated + minutes : 0
    longest = Math.max(longest, seated)
  }
  if (longest > MAX_SEATED) remarks.push({ code: 'longSeated', minutes: longest })
  for (const { rpm, effort, minutes, name } of blocks)
    if (rpm < SLOW_RPM && effort === 'hard' && minutes > MAX_SLOW) remarks.push({ code: 'slowLong', name, minutes })
  for (const { rpm, posture, name } of blocks) {
    const mostRpm = MAX_RPM[posture]
    if (rpm > mostRpm) remarks.push({ code: 'tooFast', name, rpm, mostRpm })
    if (rpm < MIN_RPM) remarks.push({ code: 'tooSlow', name, rpm, mostRpm: MIN_RPM })
  }
  remarks.push(...slowRuns(blocks))
  const gentle: readonly Effort[] = ['easy', 'recovery']
  if (!gentle.includes(blocks[0].effort)) remarks.push({ code: 'noEasyStart' })
  if (!gentle.includes(blocks[blocks.length - 1].effort)) remarks.push({ code: 'noEasyEnd' })
  return remarks
}

/** Runs of two or more heavy slow blocks without an easier one between. */
function slowRuns(blocks: readonly Block[]): PlanRemark[] {
  const runs: { count: number; minutes: number }[] = []
  let isRun = false
  for (const { rpm, effort, minutes } of blocks) {
    const isSlow = rpm < SLOW_RPM && effort === 'hard'
    if (isSlow && isRun) {
      const run = runs[runs.length - 1]
      runs[runs.length - 1] = { count: run.count + 1, minutes: run.minutes + minutes }
    } else if (isSlow) runs.push({ count: 1, minutes })
    isRun = isSlow
  }
  return runs.filter(({ count }) => count > 1).map((run) => ({ code: 'slowInARow', ...run }))
}
