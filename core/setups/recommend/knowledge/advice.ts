import type { AxisName, Marks } from '../../../base/conventions'
import type { School } from '../../../base/school/school'
import type { ScalePosition } from '../../../bikes/scale/scale'
import type { Moments } from '../../../riders/inference/moments'
import type { Rider } from '../../../riders/kinematics/pose'
import type { Anomaly } from '../history/anomalies'
import type { LastReadings } from '../history/lastReadings'
import type { MarkChance, Next } from '../request/request'
import type { SelfAdjustmentRange } from '../request/selfAdjustment'
import type { StandingBarAdvice } from '../steps/barStep'
import type { QuestionValue } from '../steps/nextQuestion'
import type { StartRule } from '../steps/startRules'
import type { Starter } from '../steps/starter'

/** The mean rider of a belief, ready to be posed, with the spreads that matter to the drawing. */
export type PosteriorMeanRider = Rider & Readonly<{ statureMm: number }>

/** The answer in codes and figures; `words` makes the sentences. */
export type Advice = Readonly<{
  chances: Readonly<Partial<Record<AxisName, readonly MarkChance[]>>>
  /** Chance that knee and plumb line are both right at the current or proposed saddle position. */
  chance: number
  next: Next
  /** Possible next questions, most valuable first. */
  questions: readonly QuestionValue[]
  /** The seat height each school's rule of thumb would set for the mean of what is believed. */
  startRules: Readonly<Record<StartRule, ScalePosition>>
  tryAlone: SelfAdjustmentRange
  starter?: Starter
  bars: StandingBarAdvice
  /** Marks of the computation: the current ones, or the proposed ones at the start. */
  marks: Marks
  belief: Readonly<{
    kneeFlexionDeg: Moments
    plumbOffsetMm: Moments
    /** Hip joint to floor, barefoot. */
    legMm: Moments
    statureMm: Moments
    effectiveSamples: number
    rider: PosteriorMeanRider
  }>
  anomalies: readonly Anomaly[]
  readings: LastReadings
  school: School
}>
