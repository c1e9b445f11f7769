import { axesOf, axisOf, type BikeType } from '@/core/bikes/bike/bike'
import { isCommon, type AxisName } from '@/core/base/adjustments'
import type { Label, Marks } from '@/core/base/conventions'
import type { Recommendation } from '@/core/operations/requests/recommend'
import type { UnitSystem } from '@/core/base/length'
import { formatLabel } from '@/core/messages/words/labels'
import { formatAgainstSaddle } from '@/core/messages/words/phrases'
import { Scale } from '../../kit/scale/Scale'
import { axisTitle } from '@/core/messages/words/phrases'
import type { Step } from '../steps/flow'
import { drawnMarks, isUpright } from './drawnMarks'
import styles from './scales.module.css'

type Props = Readonly<{
  lengths: UnitSystem
  bikeType: BikeType
  current: Marks
  shown: Marks
  target: Marks
  answer: Recommendation | null
  step: Step
  set: boolean
  /** The mark at which the saddle met a landmark. */
  found: Readonly<{ label: Label; text: string }> | undefined
  /** The plumb line was looked at since the saddle was set. */
  plumbRead: boolean
  mayTap: (axis: AxisName) => boolean
  onTap: (axis: AxisName, label: Label) => void
}>

/** All scales of the bike, each drawn the way it runs: heights upright, slides level. */
export function Scales({
  lengths,
  bikeType,
  current,
  target,
  answer,
  step,
  set,
  found,
  plumbRead,
  mayTap,
  onTap,
}: Props) {
  const axes = axesOf(bikeType)
  const further = axes.filter((axis) => !isCommon(axis))
  // Beside further adjustments the bars' post is drawn lying, until the bars are the question.
  const isLying = (axis: AxisName) =>
    !isUpright(axis) || (axis === 'barHeight' && further.length > 0 && step !== 'bars')
  const scale = (axis: AxisName) => (
    <Scale
      title={axisTitle(bikeType, axis)}
      way={isLying(axis) ? 'level' : 'upright'}
      marks={drawnMarks(
        bikeType,
        axis,
        current,
        target,
        chancesFor(axis, step, answer),
        axis === 'seatHeight' ? found : undefined,
        isLying(axis),
      )}
      remark={isUpright(axis) && isLying(axis) ? '' : remarkFor(axis, step, answer, set, plumbRead, bikeType, lengths)}
      drawnAs={'ruler' in axisOf(bikeType, axis)!.scale ? 'ticks' : 'holes'}
      asking={step === 'beside' && !set && axis === 'seatHeight'}
      onTap={mayTap(axis) ? (label) => onTap(axis, label) : undefined}
    />
  )
  return (
    <div className={styles.scales} data-step={step} {...(further.length > 0 && { 'data-further': '' })}>
      {axes.filter(isCommon).map((axis) => (
        <div key={axis} className={styles[axis]}>
          {scale(axis)}
        </div>
      ))}
      {further.length > 0 && (
        <div className={styles.further}>
          {further.map((axis) => (
            <div key={axis}>{scale(axis)}</div>
          ))}
        </div>
      )}
    </div>
  )
}

/** The seat's height always shows chances, its slide and the bars once they are the question. */
function chancesFor(axis: AxisName, step: Step, answer: Recommendation | null) {
  if (axis === 'seatHeight') return answer?.chances.seatHeight
  if (axis === 'barSlide' || axis === 'barHeight') return step === 'bars' ? answer?.chances[axis] : undefined
  return axis === 'seatSlide' && step === 'cranks' ? answer?.chances.seatSlide : undefined
}

/** A word beside each scale, the slides' only while they are the question: a tablet has no room for all. */
function remarkFor(
  axis: AxisName,
  step: Step,
  answer: Recommendation | null,
  set: boolean,
  plumbRead: boolean,
  bikeType: BikeType,
  lengths: UnitSystem,
): string {
  if (!answer || !isCommon(axis)) return ''
  if (axis === 'seatHeight') return 'chance that this mark is right, of 100'
  if (axis === 'seatSlide' && step !== 'cranks') return ''
  if (axis === 'barSlide' && step !== 'bars') return ''
  if (axis === 'seatSlide') return plumbRead ? 'plumb line read' : 'plumb line not read yet'
  if (axis === 'barHeight') {
    return (
      `${formatLabel(bikeType, axis, answer.bars.height.label)}: ` +
      `${formatAgainstSaddle(answer.bars.gripAboveSeatMm, lengths)}`
    )
  }
  if (answer.bars.byRider) return 'chance of soft elbows and clear knees, of 100'
  if (answer.bars.slide && bikeType.forearmGaugeValid)
    return `forearm reaches at ${formatLabel(bikeType, axis, answer.bars.slide.label)}`
  return set ? '' : 'starts at its middle'
}
