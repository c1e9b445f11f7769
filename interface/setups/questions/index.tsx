import type { ComponentType } from 'react'
import type { CheckName } from '@/core/messages/setups/checks'
import type { StepPanelProps } from '../steps/stepPanelProps'
import { TapeFields } from '../steps/TapeFields'
import {
  ClearanceQuestions,
  ElbowsQuestions,
  ForearmQuestions,
  ReachFeelQuestions,
  TrunkAngleQuestions,
  WishQuestions,
} from './BarsQuestions'
import { LandmarkQuestions, LimbQuestions } from './BesideQuestions'
import { PlumbByEyeQuestions, PlumbQuestions } from './CranksQuestions'
import { GaugeQuestions } from './GaugeQuestions'
import { FootPitchQuestions, KneeAngleQuestions, KneeByEyeQuestions, RockingQuestions } from './KneeQuestions'
import { RecheckQuestions } from './RecheckQuestions'
import { SchoolQuestions } from './SchoolQuestions'
import { BuildQuestions, RiderQuestions } from './TalkQuestions'

/** The question of every card. */
export const QUESTIONS: Readonly<Record<CheckName, ComponentType<StepPanelProps>>> = {
  recheck: RecheckQuestions,
  rider: RiderQuestions,
  build: BuildQuestions,
  school: SchoolQuestions,
  landmark: LandmarkQuestions,
  tape: TapeFields,
  limbs: LimbQuestions,
  kneeByEye: KneeByEyeQuestions,
  heelCheck: KneeByEyeQuestions,
  kneeAngle: KneeAngleQuestions,
  gauge: GaugeQuestions,
  rocking: RockingQuestions,
  footPitch: FootPitchQuestions,
  plumb: PlumbQuestions,
  plumbByEye: PlumbByEyeQuestions,
  wish: WishQuestions,
  elbows: ElbowsQuestions,
  reachFeel: ReachFeelQuestions,
  clearance: ClearanceQuestions,
  trunkAngle: TrunkAngleQuestions,
  forearmGauge: ForearmQuestions,
}
