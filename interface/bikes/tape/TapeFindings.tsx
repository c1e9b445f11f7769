import { DeleteOutlined } from '@ant-design/icons'
import { Button } from 'antd'
import type { BikeType } from '@/core/bikes/bike/bike'
import { SUFFICIENT_SD_MM, type CalibrationProgress } from '@/core/bikes/calibration/progress'
import { LENGTHS, type TapeReading } from '@/core/bikes/calibration/readings'
import type { TapeSlip } from '@/core/bikes/calibration/slips'
import { formatBikeLength } from '@/core/base/length'
import { LENGTH_NAME, formatSlip, formatStray, formatOutlier } from '@/core/messages/bikes/calibration'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import styles from './calibrationView.module.css'

/** What to press when all readings have a slip in common. */
const CORRECT: Readonly<Record<Exclude<TapeSlip['code'], 'reversedLabels'>, string>> = {
  reachFromNose: 'Yes, add the nose to every reach',
  stackFromFloor: 'Yes, take the axle’s height off every stack',
  heightFromPedal: 'Yes, take the crank off every saddle height',
  setbackSign: 'Turn every setback’s sign',
  centimetres: 'Yes, they are centimetres',
  inches: 'Yes, they are inches',
}

type Props = Readonly<{
  bikeType: BikeType
  readings: readonly Readonly<{ id: string; row: TapeReading }>[]
  fit: CalibrationProgress['fit']
  busy: boolean
  onCorrect: (slip: TapeSlip) => void
  onWithdraw: (id: string) => void
}>

/** What the readings come to: how sure each length is, a slip they have in common, and readings that do not fit. */
export function TapeFindings({ bikeType, readings, fit, busy, onCorrect, onWithdraw }: Props) {
  const { shown } = useUnitSystem()
  const rows = readings.map(({ row }) => row)
  const outliers = fit.outcome === 'fitted' ? fit.suspects : []
  const strays = fit.outcome === 'fitted' ? fit.strays : []
  const slips = fit.slips ?? []
  const unsure = fit.outcome === 'fitted' ? fit.expectedErrorMm : null
  return (
    <>
      {unsure && readings.length > 0 && (
        <dl className={styles.meters} aria-label="How sure">
          {LENGTHS.map((length) => (
            <div key={length}>
              <dt>{LENGTH_NAME[length]}</dt>
              <dd>
                ± {formatBikeLength(unsure[length], shown)}
                <i
                  style={
                    {
                      '--share': Math.min(1, SUFFICIENT_SD_MM / Math.max(SUFFICIENT_SD_MM, unsure[length])),
                    } as React.CSSProperties
                  }
                />
              </dd>
            </div>
          ))}
        </dl>
      )}
      {(strays.length > 0 || slips.length > 0) && (
        <div className={styles.suspects} role="status" aria-label="Something in common">
          {(slips.length > 0
            ? slips.map((slip) => formatSlip(bikeType, slip, shown))
            : strays.map((stray) => formatStray(stray, shown))
          ).map((text) => (
            <p key={text}>{text}</p>
          ))}
          {slips.length === 0 && <p>Look where the tape was held, and at this type’s description.</p>}
          {slips
            .filter((slip) => slip.code !== 'reversedLabels')
            .map((slip) => (
              <Button key={slip.code} size="large" loading={busy} onClick={() => onCorrect(slip)}>
                {CORRECT[slip.code as Exclude<TapeSlip['code'], 'reversedLabels'>]}
              </Button>
            ))}
        </div>
      )}
      {outliers.length > 0 && (
        <ul className={styles.suspects} aria-label="Readings that do not fit">
          {outliers.map((s) => (
            <li key={`${s.reading}-${s.length}`}>
              {formatOutlier(bikeType, rows, s, shown)}
              <Button icon={<DeleteOutlined />} onClick={() => onWithdraw(readings[s.reading].id)}>
                Take reading {s.reading + 1} back
              </Button>
            </li>
          ))}
        </ul>
      )}
    </>
  )
}
