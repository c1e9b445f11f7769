import { formatMarks } from '@/core/messages/words/labels'
import { DeleteOutlined } from '@ant-design/icons'
import { Button } from 'antd'
import type { BikeType } from '@/core/bikes/bike/bike'
import type { CalibrationProgress } from '@/core/bikes/calibration/progress'
import { LENGTHS, type TapeReading } from '@/core/bikes/calibration/readings'
import { LENGTH_NAME } from '@/core/messages/bikes/calibration'
import { formatBikeLength } from '@/core/base/length'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import styles from './readingsTable.module.css'

type Props = Readonly<{
  bikeType: BikeType
  readings: readonly Readonly<{ id: string; row: TapeReading }>[]
  fit: CalibrationProgress['fit']
  onWithdraw: (id: string) => void
}>

/** All readings with what each number is off the fit; outliers are marked. */
export function ReadingsTable({ bikeType, readings, fit, onWithdraw }: Props) {
  const { shown } = useUnitSystem()
  if (readings.length === 0) return null
  const off = (reading: number, length: string) =>
    fit.outcome === 'fitted' ? fit.residues.find((r) => r.reading === reading && r.length === length)?.mm : undefined
  const odd = (reading: number, length: string) =>
    fit.outcome === 'fitted' &&
    fit.suspects.some((s) => (s.reading === reading || s.orReading === reading) && s.length === length)
  return (
    <div className={styles.scroll} tabIndex={0} role="region" aria-label="Readings">
      <table className={styles.readings}>
        <thead>
          <tr>
            <th>set at</th>
            {LENGTHS.map((length) => (
              <th key={length}>{LENGTH_NAME[length]}</th>
            ))}
            <th aria-label="Take back" />
          </tr>
        </thead>
        <tbody>
          {readings.map(({ id, row }, i) => (
            <tr key={id}>
              <td>{formatMarks(bikeType, row.marks)}</td>
              {LENGTHS.map((length) => (
                <td key={length} className={odd(i, length) ? styles.odd : undefined}>
                  {row.lengths[length] === undefined ? '–' : formatBikeLength(row.lengths[length], shown)}
                  <em>{formatResidual(off(i, length))}</em>
                </td>
              ))}
              <td>
                <Button
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={`Take reading ${i + 1} back`}
                  title="Take back"
                  onClick={() => onWithdraw(id)}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

/** "+1.2 off", in millimetres. */
function formatResidual(mm: number | undefined): string {
  if (mm === undefined) return ''
  const size = Math.abs(mm).toFixed(1)
  return size === '0.0' ? 'fits' : `${mm > 0 ? '+' : '−'}${size} mm`
}
