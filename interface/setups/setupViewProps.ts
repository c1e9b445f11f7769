import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import type { School } from '@/core/base/school/school'
import type { MisSetRequest } from '@/core/operations/requests/misSet'
import type { EarlierSetup } from '@/core/setups/recommend/history/riderHistory'
import type { Costs } from '@/core/setups/recommend/request/questionCosts'
import type { RecommendRequest } from '@/core/setups/recommend/request/request'
import type { StopText } from '../comfort/limits/stopProps'
import type { Row } from './steps/flow'
import type { PreviousNumbers } from './steps/stepPanelProps'

export type SetupViewProps = Readonly<{
  setupId: string
  member: Readonly<{ id: string; name: string }>
  bike: Readonly<{
    id: string
    number: number
    machineCalibration: Bike
    type: BikeType
    landmarks: readonly School['startLandmark'][]
  }>
  /** The school this set-up goes by, and what of it is its own. */
  school: School
  ownSchool: Partial<School>
  /** Seconds a check takes here. */
  costs: Costs
  /** What this studio's own set-ups teach, in place of the published proportions. */
  prior: NonNullable<RecommendRequest['prior']>
  /** How the eye strays that looks here. */
  observer: RecommendRequest['observer']
  /** What the rider's limits change of the advice. */
  limits: NonNullable<RecommendRequest['limits']>
  /** The limits in words. */
  limitTexts: readonly string[]
  consent: Readonly<{ agrees: boolean; wording: string }>
  /** On the studio's clock, YYYY-MM-DD. */
  today: string
  /** Earlier set-ups of this rider, on any type. */
  history: readonly EarlierSetup[]
  /** What another studio believed of their body, by the file they brought along. */
  body: RecommendRequest['body']
  /** Their numbers on other types. */
  elsewhere: NonNullable<MisSetRequest['elsewhere']>
  /** The studio's other types, of which one is offered where this bike ends. */
  otherTypes: readonly BikeType[]
  /** The rider's saved numbers on this type, if any. */
  previous: PreviousNumbers | null
  /** Context of the rider: an open red flag, complaints, trials, health, another seat; null once saved. */
  about: Readonly<{ stop: StopText | null; lines: readonly string[] }> | null
  /** The rider brings the numbers: they are tapped, without questions. */
  entersKnownNumbers: boolean
  /** Where one goes when it is left or saved: the rider's page, or the floor it was begun from. */
  back: string
  /** An angle gauge is connected. */
  gauge: boolean
  stored: readonly Row[]
  finished: boolean
}>
