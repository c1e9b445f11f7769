'use client'
import { CheckOutlined } from '@ant-design/icons'
import { App, Button, Modal, Segmented } from 'antd'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { axesOf, type Bike, type BikeType } from '@/core/bike/bike'
import { INSPECTION_ITEMS, type InspectionItem } from '@/core/bike/inspection'
import { judgeTilt, straight, wedgeTiltDeg, type TiltAcross } from '@/core/bike/tilt'
import { LENGTHS, type LengthName, type TapeReading } from '@/core/calibration/readings'
import type { AxisName, Label, Marks } from '@/core/conventions'
import { stopsOf } from '@/core/scale/scale'
import type { School } from '@/core/school/school'
import { bikeLengthSaid, readLength } from '@/core/units/length'
import { labelSaid } from '@/core/words/labels'
import { lengthRefusedSaid } from '@/core/words/lengths'
import { ITEM_SAID } from '@/core/words/machine'
import { LENGTH_NAME } from '@/core/words/tape'
import { tiltSaid } from '@/core/words/tilt'
import { BikeDrawing } from '../drawing/BikeDrawing'
import { Scale } from '../drawing/Scale'
import { LengthField } from '../shared/LengthField'
import { AXIS_TITLE } from '../shared/marksText'
import { useLengths } from '../shared/Providers'
import { clear, keepMeasured, takeBackMeasured, weighTape } from './actions'
import styles from './bikes.module.css'
import { useAction } from './useAction'

type Props = Readonly<{
  bike: Readonly<{ id: string; number: number; own: Bike; type: BikeType; lineId: string }>
  school: School['tilt']
  state: string
  faults: readonly Readonly<{ id: string; item: InspectionItem; note: string; found: string; open: boolean }>[]
  measured: readonly Readonly<{ id: string; said: string; when: string }>[]
  looks: readonly Readonly<{ id: string; said: string; good: number }>[]
  doubtful: readonly Readonly<{ memberId: string; name: string; when: string }>[]
}>

/** One machine: its faults, its own offset from a tape, its saddle's tilt and line. */
export function MachineView({ bike, school, state, faults, measured, looks, doubtful }: Props) {
  const router = useRouter()
  const { shown } = useLengths()
  const { act } = useAction()
  const open = faults.filter((f) => f.open)
  const offsets = axesOf(bike.type).flatMap((axis) => {
    const mm = bike.own.offsetsMm?.[axis]
    return mm === undefined ? [] : [`${AXIS_TITLE[axis].toLowerCase()} ${mm > 0 ? '+' : ''}${bikeLengthSaid(mm, shown)}`]
  })
  const after = async (word: () => ReturnType<typeof clear>) => {
    if (await act(word)) router.refresh()
  }
  return (
    <>
      <div className={styles.head}>
        <h1>
          Bike {bike.number}, {bike.type.name}
        </h1>
        <Button size="large" type="primary" href={`/bikes/round?bike=${bike.number}`}>
          Look over
        </Button>
      </div>
      <p className={open.length > 0 ? styles.act : styles.lead}>{state}</p>
      {faults.length > 0 && (
        <section className={styles.part}>
          <h2>Faults</h2>
          <ul className={styles.rows}>
            {faults.map((fault) => (
              <li key={fault.id}>
                <div>
                  <b className={fault.open ? styles.act : undefined}>{ITEM_SAID[fault.item][0]}</b> {fault.note}
                  <p className={styles.quiet}>
                    {fault.found}
                    {fault.open ? '' : ', mended'}
                  </p>
                </div>
                {fault.open && (
                  <Button icon={<CheckOutlined />} onClick={() => after(() => clear(bike.id, fault.id))}>
                    Mended
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {doubtful.length > 0 && (
        <section className={styles.part}>
          <h2>Numbers to look at again</h2>
          <p className={styles.quiet}>Saved on this bike between its last good tape and the one that found it changed.</p>
          <ul className={styles.rows}>
            {doubtful.map((rider) => (
              <li key={`${rider.memberId}-${rider.when}`}>
                <Link href={`/riders/${rider.memberId}`}>{rider.name}</Link>
                <span className={styles.quiet}>{rider.when}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className={styles.facts}>
        <section className={styles.part}>
          <h2>Its own offset</h2>
          <p className={styles.quiet}>{offsets.length > 0 ? `Against its type: ${offsets.join(', ')}.` : 'Not measured: taken as its type, and less sure. One or two readings set it.'}</p>
          <OneTape bike={bike} />
        </section>
        <section className={styles.part}>
          <h2>Saddle</h2>
          <Tilt bike={bike} school={school} />
        </section>
      </div>
      {measured.length > 0 && (
        <section className={styles.part}>
          <h2>Measured</h2>
          <ul className={styles.rows}>
            {measured.map((row) => (
              <li key={row.id}>
                <div>
                  {row.said}
                  <p className={styles.quiet}>{row.when}</p>
                </div>
                <Button onClick={() => after(() => takeBackMeasured(bike.id, row.id))}>Take back</Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {looks.length > 0 && (
        <section className={styles.part}>
          <h2>Looked over</h2>
          <ul className={styles.rows}>
            {looks.map((look) => (
              <li key={look.id}>
                {look.said}
                <span className={look.good === INSPECTION_ITEMS.length ? styles.good : styles.act}>
                  {look.good} of {INSPECTION_ITEMS.length} good
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}

/** One reading of this machine: marks tapped on its scales, whichever lengths were read. */
function OneTape({ bike }: Pick<Props, 'bike'>) {
  const router = useRouter()
  const { shown } = useLengths()
  const { act, busy } = useAction()
  const { modal } = App.useApp()
  const [marks, setMarks] = useState<Marks>(() => Object.fromEntries(axesOf(bike.type).map((axis) => [axis, middleLabel(bike.type, axis)])))
  const [typed, setTyped] = useState<Partial<Record<LengthName, string>>>({})
  const [said, setSaid] = useState('')

  async function keep() {
    const lengths: Partial<Record<LengthName, number>> = {}
    for (const length of LENGTHS) {
      const read = readLength(typed[length] ?? '', shown === 'feet' ? 'in' : 'mm')
      if (read.outcome === 'read') lengths[length] = Number(read.mm.toFixed(2))
      else if (read.reason !== 'empty') return setSaid(lengthRefusedSaid(read.reason, typed[length]!, shown))
    }
    if (Object.keys(lengths).length === 0) return setSaid('Type at least one of the four lengths.')
    const row: TapeReading = { marks, lengths }
    const weighed = await act(() => weighTape(bike.id, row, shown))
    if (!weighed) return
    if (weighed.says.length === 0) return store(row, false)
    modal.confirm({
      title: 'This does not agree with the last tape',
      content: weighed.says.map((line) => <p key={line}>{line}</p>),
      okText: 'The bike has changed, keep it',
      cancelText: 'Measure again',
      onOk: () => store(row, true),
    })
  }

  async function store(row: TapeReading, anew: boolean) {
    const id = crypto.randomUUID()
    if (!(await act(() => keepMeasured(id, bike.id, { kind: 'tape', ...row }, anew)))) return
    setTyped({})
    setSaid('')
    router.refresh()
  }

  return (
    <>
      <details className={styles.other}>
        <summary>
          Set at {axesOf(bike.type).map((axis) => (marks[axis] === undefined ? '–' : labelSaid(bike.type, axis, marks[axis]))).join(' · ')}; it stands elsewhere
        </summary>
        {axesOf(bike.type).map((axis) => (
          <Scale
            key={axis}
            title={AXIS_TITLE[axis]}
            way="level"
            drawnAs="holes"
            remark=""
            marks={stopsOf(bike.type.axes[axis]!.scale).map(({ label }) => ({ label, said: labelSaid(bike.type, axis, label), set: marks[axis] === label, wanted: false }))}
            onTap={(label) => setMarks((m) => ({ ...m, [axis]: label }))}
          />
        ))}
      </details>
      <div className={styles.benchDrawing}>
        <BikeDrawing bikeType={bike.type} bike={bike.own} marks={marks} shown={shown} lengths={LENGTHS} />
      </div>
      <div className={styles.fields}>
        {LENGTHS.map((length) => (
          <LengthField key={length} title={LENGTH_NAME[length]} typed={typed[length] ?? ''} onTyped={(v) => (setTyped((t) => ({ ...t, [length]: v })), setSaid(''))} onEnter={keep} placeholder={shown === 'feet' ? 'in' : 'mm'} />
        ))}
      </div>
      <p className={styles.faults} aria-live="polite">
        {said}
      </p>
      <Button size="large" type="primary" loading={busy} onClick={keep}>
        Keep the reading
      </Button>
    </>
  )
}

/** The saddle's angle with the floor taken off, what a wedge would do, and its line over the frame. */
function Tilt({ bike, school }: Pick<Props, 'bike' | 'school'>) {
  const router = useRouter()
  const { act, busy } = useAction()
  const [deg, setDeg] = useState('')
  const [floor, setFloor] = useState('0')
  const [across, setAcross] = useState<TiltAcross>('highestPoints')
  const [line, setLine] = useState('')
  const [closed, setClosed] = useState<'open' | 'closed'>('closed')
  const [wedge, setWedge] = useState<{ lift: string; base: string } | null>(null)
  const degrees = number(deg)
  const judged = degrees === null ? null : judgeTilt({ deg: degrees, floorDeg: number(floor) ?? 0, across }, bike.type.saddle.shape, school)
  const stored = bike.own.tiltDeg === undefined ? null : judgeTilt({ deg: bike.own.tiltDeg, floorDeg: 0, across }, bike.type.saddle.shape, school)
  const told = judged ?? stored
  const { sentence, because } = told ? tiltSaid(told) : { sentence: 'Not measured yet.', because: [] }

  async function keep() {
    const mm = number(line)
    if (degrees !== null && !(await act(() => keepMeasured(crypto.randomUUID(), bike.id, { kind: 'tilt', deg: degrees, floorDeg: number(floor) ?? 0, across })))) return
    if (mm !== null && !(await act(() => keepMeasured(crypto.randomUUID(), bike.id, { kind: 'saddleLine', mm, afterClosing: closed === 'closed' })))) return
    setDeg('')
    setLine('')
    router.refresh()
  }

  const lift = wedge && number(wedge.lift)
  const base = wedge && number(wedge.base)
  return (
    <>
      <p className={told && told.outcome !== 'good' ? styles.act : told ? styles.good : styles.quiet} aria-live="polite">
        {sentence}
      </p>
      {because.map((reason) => (
        <p key={reason} className={styles.quiet}>
          {reason}
        </p>
      ))}
      <div className={styles.fields}>
        <LengthField title="Saddle, ° (minus is nose down)" typed={deg} onTyped={setDeg} placeholder="°" />
        <LengthField title="Floor here, °" typed={floor} onTyped={setFloor} placeholder="°" />
        <Segmented className={styles.wide} aria-label="Board across" value={across} onChange={setAcross} options={[{ value: 'highestPoints', label: 'two highest points' }, { value: 'frontHalf', label: 'front half' }]} block />
        <LengthField title="Nose off the frame’s line, mm" typed={line} onTyped={setLine} placeholder="right is plus" />
        <Segmented className={styles.wide} aria-label="Saddle line sighted" value={closed} onChange={setClosed} options={[{ value: 'open', label: 'before closing' }, { value: 'closed', label: 'again after closing' }]} block />
      </div>
      {number(line) !== null && (
        <p className={straight(number(line)!) ? styles.good : styles.act}>
          {straight(number(line)!) ? 'Straight.' : 'Off its line loads one side. Sight along it over the frame, not the stem; closing can pull it 2 to 3 mm, so look again after.'}
        </p>
      )}
      <div className={styles.ways}>
        <Button size="large" loading={busy} disabled={degrees === null && number(line) === null} onClick={keep}>
          Keep
        </Button>
        <Button size="large" type="text" onClick={() => setWedge({ lift: '', base: '900' })}>
          A wedge or uneven foot
        </Button>
      </div>
      <Modal open={wedge !== null} onCancel={() => setWedge(null)} footer={null} title="A wedge, or an uneven foot">
        {wedge && (
          <>
            <div className={styles.fields}>
              <LengthField title="Lifts the front by, mm" typed={wedge.lift} onTyped={(value) => setWedge({ ...wedge, lift: value })} />
              <LengthField title="Front foot to rear foot, mm" typed={wedge.base} onTyped={(value) => setWedge({ ...wedge, base: value })} />
            </div>
            <p className={styles.sentence} aria-live="polite">
              {lift === null || !base || base <= 0 ? 'Type both; a lift at the back is minus.' : `Turns the saddle ${Math.abs(wedgeTiltDeg(lift, base)).toFixed(1)}° nose ${lift >= 0 ? 'up' : 'down'}.`}
            </p>
          </>
        )}
      </Modal>
    </>
  )
}

/** The label half-way along a scale: a reading there says most of the whole range. */
function middleLabel(type: BikeType, axis: AxisName): Label {
  const stops = stopsOf(type.axes[axis]!.scale)
  return stops[Math.floor(stops.length / 2)].label
}

/** A typed number with point or comma and either minus; null for anything else. */
function number(typed: string): number | null {
  const value = Number(typed.trim().replace(',', '.').replace('−', '-'))
  return typed.trim() === '' || !Number.isFinite(value) ? null : value
}
