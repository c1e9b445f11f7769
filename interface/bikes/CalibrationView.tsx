'use client'
import { DeleteOutlined } from '@ant-design/icons'
import { App, Button, Segmented } from 'antd'
import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import { axesOf, axisOf, type BikeType } from '@/core/bike/bike'
import {
  calibrationProgress,
  SUFFICIENT_SD_MM,
  checkPlausibility,
  type CalibrationProgress,
} from '@/core/calibration/progress'
import { LENGTHS, type TapeReading } from '@/core/calibration/readings'
import { readingWithoutSlip, type TapeSlip } from '@/core/calibration/slips'
import type { AxisName, Label, Marks } from '@/core/conventions'
import { positionsOf } from '@/core/scale/scale'
import { formatBikeLength } from '@/core/units/length'
import { formatLabel } from '@/core/messages/labels'
import {
  formatCalibrationRefusal,
  LENGTH_NAME,
  formatSlip,
  formatStray,
  formatOutlier,
  formatInputWarning,
} from '@/core/messages/calibration'
import { BikeDrawing } from '../drawing/BikeDrawing'
import { Scale } from '../drawing/Scale'
import { LengthField } from '../shared/LengthField'
import { AXIS_TITLE } from '@/core/messages/phrases'
import { partId, useIdempotencyKey } from '../shared/useIdempotencyKey'
import { useUnitSystem } from '../shared/DevicePreferences'
import { command } from '../commands/command'
import parts from './parts.module.css'
import styles from './calibrationView.module.css'
import { SetbackSigns } from '../drawing/SetbackSigns'
import { ReadingsTable } from './ReadingsTable'
import { EMPTY_LENGTHS, parseTape, type TypedLengths } from './parseTape'
import { useAction } from '../shared/useAction'

type Stored = Readonly<{ id: string; row: TapeReading }>
type Props = Readonly<{ typeId: string; bikeType: BikeType; stored: readonly Stored[] }>

/**
 * A type under the tape: which marks to set, four numbers, each against the fit, until every length is known well
 * enough.
 */
export function CalibrationView({ typeId, bikeType, stored }: Props) {
  const router = useRouter()
  const { message, modal } = App.useApp()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const [readings, setReadings] = useState(stored)
  const rows = useMemo(() => readings.map((r) => r.row), [readings])
  const state: CalibrationProgress = useMemo(() => calibrationProgress(bikeType, rows), [bikeType, rows])
  const [chosen, setChosen] = useState<Marks | null>(null)
  const [typed, setTyped] = useState<TypedLengths>(EMPTY_LENGTHS)
  const [wall, setWall] = useState<'direct' | 'wall'>('direct')
  const [from, setFrom] = useState<'seat' | 'nose'>('seat')
  const [warning, setWarning] = useState('')
  const [versionId] = useState(() => crypto.randomUUID())
  const { idFor, forget } = useIdempotencyKey()
  const correction = useIdempotencyKey()
  const marks = chosen ?? state.next.marks
  const plain = shown === 'imperial' ? 'in' : 'mm'

  async function save() {
    const { lengths, wrong } = parseTape(typed, { setback: wall, reach: from }, bikeType.saddle.noseAheadMm, shown)
    if (wrong) return setWarning(wrong)
    const found = checkPlausibility(bikeType, rows, { marks, lengths })
    const asks = found ? formatInputWarning(found, shown) : ''
    if (asks && asks !== warning) return setWarning(asks)
    const row = { marks, lengths }
    const reading = { id: idFor(row), row }
    if (!(await act(() => command('bikes.addTapeReading', { typeId, row }, reading.id)))) return
    forget()
    setReadings((all) => [...all, reading])
    setTyped(EMPTY_LENGTHS)
    setWarning('')
    setChosen(null)
  }

  async function withdraw(id: string) {
    if (!(await act(() => command('bikes.withdrawTapeReading', { readingId: id })))) return
    setReadings((all) => all.filter((r) => r.id !== id))
    message.info('Taken back.', 1.5)
  }

  async function replaceAll(
    all: readonly Stored[],
    rowsNow: readonly TapeReading[],
    writeId: string,
  ): Promise<Stored[] | null> {
    const by = rowsNow.map((row, i) => ({ id: partId(writeId, i), row }))
    const replaced = by.map(({ id, row }, i) => ({ id: all[i].id, newId: id, row }))
    if (!(await act(() => command('bikes.replaceTapeReadings', { typeId, replaced })))) return null
    // What was kept meanwhile stays.
    const placed = new Map(all.map(({ id }, i) => [id, by[i]]))
    setReadings((now) => now.map((reading) => placed.get(reading.id) ?? reading))
    return by
  }

  /** Corrects every reading kept so far; it can be undone while the word of it stands. */
  async function correct(slip: TapeSlip) {
    const rowsNow = rows.map((row) => readingWithoutSlip(bikeType, row, slip))
    const corrected = await replaceAll(readings, rowsNow, correction.idFor(rowsNow))
    if (!corrected) return
    correction.forget()
    const undoId = crypto.randomUUID()
    const undo = async () => {
      if (await replaceAll(corrected, rows, undoId)) message.destroy('corrected')
    }
    message.success({
      key: 'corrected',
      duration: 10,
      content: (
        <>
          All readings corrected. <Button onClick={undo}>Undo</Button>
        </>
      ),
    })
  }

  async function finishSurely() {
    if (strays.length === 0) return finish()
    await modal.confirm({
      title: 'Put it in force all the same?',
      content: 'It lies far from this type’s description. Every set-up on these bikes will be computed from it.',
      okText: 'Put it in force',
      cancelText: 'Measure again',
      onOk: finish,
    })
  }

  async function finish() {
    if (!(await act(() => command('bikes.finishCalibration', { typeId }, versionId)))) return
    router.push('/bikes')
    router.refresh()
  }

  const field = (key: keyof TypedLengths, title: string) => (
    <LengthField
      title={title}
      typed={typed[key]}
      onTyped={(v) => {
        setTyped((t) => ({ ...t, [key]: v }))
        setWarning('')
      }}
      onEnter={save}
      placeholder={plain}
    />
  )
  const outliers = state.fit.outcome === 'fitted' ? state.fit.suspects : []
  const strays = state.fit.outcome === 'fitted' ? state.fit.strays : []
  const slips = state.fit.slips ?? []
  const unsure = state.fit.outcome === 'fitted' ? state.fit.expectedErrorMm : null
  return (
    <>
      <div className={parts.head}>
        <h1>{bikeType.name} under the tape</h1>
      </div>
      <div className={styles.calibration}>
        <div>
          <p className={parts.sentence} aria-live="polite">
            {state.done
              ? `Done: every length is known to ${SUFFICIENT_SD_MM} mm over the whole range.`
              : readings.length === 0
                ? 'Set the bike as below, then read the four lengths from the crank axle.'
                : `Reading ${readings.length + 1}: set it as below, then read the four lengths.`}
          </p>
          <dl className={styles.setting}>
            {axesOf(bikeType).map((axis) => (
              <div key={axis}>
                <dt>{AXIS_TITLE[axis]}</dt>
                <dd>{marks[axis] === undefined ? '–' : formatLabel(bikeType, axis, marks[axis])}</dd>
              </div>
            ))}
          </dl>
          <OtherSetting
            bikeType={bikeType}
            marks={marks}
            onSet={(axis, label) => setChosen({ ...marks, [axis]: label })}
          />
          <div className={parts.fields}>
            {field('saddleHeightMm', 'Saddle height, straight to the middle of the widest part')}
            {wall === 'direct' ? (
              field('setbackMm', 'Setback, axle to nose, level')
            ) : (
              <>
                {field('wallAxle', 'Wall behind to axle')}
                {field('wallNose', 'Wall behind to nose')}
              </>
            )}
            {from === 'seat'
              ? field('reachMm', 'Reach, widest part to grip, level')
              : field('noseReach', 'Nose to grip, level')}
            {field('stackMm', 'Stack, axle to grip, upright')}
            {wall === 'direct' && <SetbackSigns />}
            <Segmented
              className={parts.wide}
              aria-label="Setback measured"
              value={wall}
              onChange={setWall}
              options={[
                { value: 'direct', label: 'Setback directly' },
                { value: 'wall', label: 'against a wall' },
              ]}
              block
            />
            <Segmented
              className={parts.wide}
              aria-label="Reach measured"
              value={from}
              onChange={setFrom}
              options={[
                { value: 'seat', label: 'Reach from the seat' },
                { value: 'nose', label: 'from the nose' },
              ]}
              block
            />
          </div>
          <p className={parts.faults} aria-live="polite">
            {warning}
          </p>
          <div className={parts.ways}>
            <Button size="large" type={state.done ? 'default' : 'primary'} loading={busy} onClick={save}>
              {warning.endsWith('?') ? 'Yes, keep it' : 'Keep the reading'}
            </Button>
            <Button
              size="large"
              type={state.done ? 'primary' : 'default'}
              disabled={state.blocked !== null}
              loading={busy}
              onClick={finishSurely}
            >
              {state.done ? 'Put it in force' : 'Enough, put it in force'}
            </Button>
          </div>
        </div>
        <div>
          <div className={parts.measuredDrawing}>
            <BikeDrawing
              bikeType={state.fit.outcome === 'fitted' ? state.fit.bikeType : bikeType}
              marks={marks}
              shown={shown}
              lengths={LENGTHS}
            />
          </div>
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
                  <Button key={slip.code} size="large" loading={busy} onClick={() => correct(slip)}>
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
                  <Button icon={<DeleteOutlined />} onClick={() => withdraw(readings[s.reading].id)}>
                    Take reading {s.reading + 1} back
                  </Button>
                </li>
              ))}
            </ul>
          )}
          {state.blocked && readings.length > 0 && (
            <p className={parts.quiet}>{formatCalibrationRefusal(bikeType, state.blocked)}</p>
          )}
          <ReadingsTable bikeType={bikeType} readings={readings} fit={state.fit} onWithdraw={withdraw} />
        </div>
      </div>
    </>
  )
}

/** What to press when all readings have a slip in common. */
const CORRECT: Readonly<Record<Exclude<TapeSlip['code'], 'reversedLabels'>, string>> = {
  reachFromNose: 'Yes, add the nose to every reach',
  stackFromFloor: 'Yes, take the axle’s height off every stack',
  heightFromPedal: 'Yes, take the crank off every saddle height',
  setbackSign: 'Turn every setback’s sign',
  centimetres: 'Yes, they are centimetres',
  inches: 'Yes, they are inches',
}

/** Another setting than the one proposed, tapped on the bike's own scales. */
function OtherSetting({
  bikeType,
  marks,
  onSet,
}: {
  bikeType: BikeType
  marks: Marks
  onSet: (axis: AxisName, label: Label) => void
}) {
  return (
    <details className={parts.other}>
      <summary>It stands at other marks</summary>
      {axesOf(bikeType).map((axis) => (
        <Scale
          key={axis}
          title={AXIS_TITLE[axis]}
          way="level"
          drawnAs="holes"
          remark=""
          marks={stopsDrawn(bikeType, axis, marks)}
          onTap={(label) => onSet(axis, label)}
        />
      ))}
    </details>
  )
}

function stopsDrawn(bikeType: BikeType, axis: AxisName, marks: Marks) {
  return positionsOf(axisOf(bikeType, axis)!.scale).map(({ label }) => ({
    label,
    text: formatLabel(bikeType, axis, label),
    set: marks[axis] === label,
    wanted: false,
  }))
}
