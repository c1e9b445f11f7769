import { useState } from 'react'
import type { Marks } from '@/core/base/conventions'
import type { Recommendation } from '@/core/operations/requests/recommend'
import { BikeDrawing } from '../kit/drawing/BikeDrawing'
import { SideView } from '../kit/drawing/SideView'
import { lazyDialog } from '../kit/lazyDialog/lazyDialog'
import { useUnitSystem } from '../kit/theme/DevicePreferences'
import type { SetupViewProps } from './setupViewProps'
import styles from './setupView.module.css'
import { latestSinceSet, marksWithBars, type Row, type Step } from './steps/flow'

const ShowItDialog = lazyDialog(() => import('./show/ShowItDialog'))

type Props = Pick<SetupViewProps, 'bike' | 'school' | 'about' | 'member'> &
  Readonly<{
    rows: readonly Row[]
    step: Step
    answer: Recommendation | null
    trouble: string | null
    current: Marks
    shown: Marks
  }>

const PART: Readonly<Partial<Record<Step, 'plumb' | 'bars' | 'nothing'>>> = {
  cranks: 'plumb',
  bars: 'bars',
  numbers: 'nothing',
}

/** Rider and bike as estimated, with notes on the rider above. */
export function SetupDrawing({ bike, school, about, member, rows, step, answer, trouble, current, shown }: Props) {
  const { shown: lengths } = useUnitSystem()
  const [isShowing, setShowing] = useState(false)
  const angle = latestSinceSet(rows, 'kneeAngle')?.row
  const plumb = latestSinceSet(rows, 'plumb')?.row
  return (
    <div className={styles.drawing}>
      <button type="button" className={styles.show} onClick={() => setShowing(true)}>
        Show it
      </button>
      <ShowItDialog
        open={isShowing}
        close={() => setShowing(false)}
        name={member.name}
        bikeType={bike.type}
        bike={bike.machineCalibration}
        marks={shown}
        rider={answer?.belief.rider ?? null}
      />
      {about && about.lines.length > 0 && (
        <ul className={styles.about} aria-label="Known of this rider">
          {about.lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      {answer ? (
        <SideView
          lengths={lengths}
          bikeType={bike.type}
          bike={bike.machineCalibration}
          marks={step === 'bars' ? { ...shown, ...marksWithBars(answer, current) } : shown}
          rider={answer.belief.rider}
          show={PART[step] ?? 'knee'}
          knee={
            angle?.kind === 'kneeAngle'
              ? { deg: angle.deg, sdDeg: 0 }
              : { deg: answer.belief.kneeFlexionDeg.mean, sdDeg: answer.belief.kneeFlexionDeg.sd }
          }
          plumbMm={plumb?.kind === 'plumb' ? plumb.mm : answer.belief.plumbOffsetMm.mean}
          windowText={`${school.kneeWindowDeg[0]} to ${school.kneeWindowDeg[1]} wanted`}
        />
      ) : (
        <>
          {trouble && <p className={styles.wait}>{trouble}</p>}
          <BikeDrawing bikeType={bike.type} bike={bike.machineCalibration} marks={current} shown={lengths} />
        </>
      )}
    </div>
  )
}
