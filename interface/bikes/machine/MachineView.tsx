'use client'
import { CheckOutlined } from '@ant-design/icons'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { axesOf } from '@/core/bikes/bike/bike'
import { INSPECTION_ITEMS, type InspectionItem } from '@/core/bikes/bike/inspection'
import type { School } from '@/core/base/school/school'
import { formatBikeLength } from '@/core/base/length'
import type { PooledResidual } from '@/core/setups/learning/machineResiduals'
import { formatResidual, INSPECTION_ITEM_TEXT } from '@/core/messages/bikes/machine'
import { axisTitle } from '@/core/messages/words/phrases'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { command } from '../../commands/command'
import parts from '../parts.module.css'
import styles from './machineView.module.css'
import { CareList, type CareProps } from './CareList'
import { CarriedSaddle, type CarriedSaddleProps } from './CarriedSaddle'
import type { Machine } from './machine'
import { MachineMore } from './MachineMore'
import { MachineReadingForm } from './MachineReadingForm'
import { SaddleTilt } from './SaddleTilt'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { Link } from '../../kit/Link'

export type MachineViewProps = Readonly<{
  bike: Machine
  /** The code on it, as printed; null for a retired machine. */
  code: string | null
  /** Whether the user may delete a machine added by mistake, and accept its riders' offset. */
  mayManage: boolean
  /** Offset of its seat height by the riders checked on it; null without one. */
  residual: PooledResidual | null
  school: School['tilt']
  state: string
  /** The day it was retired; null while it is in use. */
  retired: string | null
  faults: readonly Readonly<{ id: string; item: InspectionItem; note: string; found: string; open: boolean }>[]
  measured: readonly Readonly<{ id: string; text: string; when: string }>[]
  looks: readonly Readonly<{ id: string; text: string; good: number }>[]
  care: CareProps
  saddle: CarriedSaddleProps
  /** Parts replaced since what they moved was last measured, each with what it asks for. */
  opened: readonly Readonly<{ part: string; text: string; when: string }>[]
  doubtful: readonly Readonly<{ memberId: string; name: string; when: string }>[]
}>

/** Less is not worth a word. */
const MIN_OFFSET_MM = 0.5

/** One machine: its faults, its own offset from a tape, its saddle's tilt and line. */
export function MachineView(props: MachineViewProps) {
  const { bike, code, mayManage, residual, school, state, retired, faults, measured, looks, doubtful } = props
  const { care, opened, saddle } = props
  const router = useRouter()
  const { shown } = useUnitSystem()
  const { act } = useAction()
  const open = faults.filter((f) => f.open)
  const offsets = axesOf(bike.type).flatMap((axis) => {
    const mm = bike.machineCalibration.offsetsMm?.[axis]
    return mm === undefined || Math.abs(mm) < MIN_OFFSET_MM
      ? []
      : [`${axisTitle(bike.type, axis).toLowerCase()} ${mm > 0 ? '+' : ''}${formatBikeLength(mm, shown)}`]
  })
  const after = async (action: () => ReturnType<typeof command>) => {
    if (await act(action)) router.refresh()
  }
  return (
    <>
      <div className={parts.head}>
        <h1>
          Bike {bike.number}, {bike.type.name}
        </h1>
        {mayManage && retired === null && (
          <MachineMore bike={bike} isUnused={faults.length + measured.length + looks.length === 0} />
        )}
        <Button size="large" type="primary" href={`/bikes/round?bike=${bike.number}`}>
          Look over
        </Button>
      </div>
      {retired === null ? (
        <p className={open.length > 0 ? parts.act : parts.lead}>{state}</p>
      ) : (
        <p className={parts.act}>
          Retired on {retired}. It is offered nowhere; what was recorded on it stays.
          {mayManage && (
            <Button onClick={() => after(() => command('bikes.returnMachine', { bikeId: bike.id }))}>
              Back into use
            </Button>
          )}
        </p>
      )}
      {code && (
        <p className={parts.quiet}>
          The code on it: <Link href={`/b/${code.replace(' ', '')}`}>{code}</Link>. Scanned, it opens this bike to
          anybody.
        </p>
      )}
      {faults.length > 0 && (
        <section className={parts.part}>
          <h2>Faults</h2>
          <ul className={styles.rows}>
            {faults.map((fault) => (
              <li key={fault.id}>
                <div>
                  <b className={fault.open ? parts.act : undefined}>{INSPECTION_ITEM_TEXT[fault.item][0]}</b>{' '}
                  {fault.note}
                  <p className={parts.quiet}>
                    {fault.found}
                    {fault.open ? '' : ', mended'}
                  </p>
                </div>
                {fault.open && (
                  <Button
                    icon={<CheckOutlined />}
                    onClick={() => after(() => command('bikes.resolveFault', { bikeId: bike.id, faultId: fault.id }))}
                  >
                    Mended
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {opened.map(({ part, text, when }) => (
        <p key={part} className={styles.opened} role="status">
          {text} <span className={parts.quiet}>{when}</span>
        </p>
      ))}
      <Doubtful doubtful={doubtful} isOpened={opened.length > 0} />
      {residual && <RiderResidual bike={bike} residual={residual} mayTake={mayManage} />}
      <div className={parts.facts}>
        <section className={parts.part} id="tape">
          <h2>Its own offset</h2>
          <p className={parts.quiet}>
            {!bike.machineCalibration.offsetsMm
              ? 'Not measured: taken as its type, and less sure. One or two readings set it.'
              : offsets.length > 0
                ? `Against its type: ${offsets.join(', ')}.`
                : 'As its type, by the tape.'}
          </p>
          <MachineReadingForm bike={bike} />
        </section>
        <section className={parts.part}>
          <h2>Saddle</h2>
          <CarriedSaddle bikeId={bike.id} saddle={saddle} />
          <SaddleTilt key={bike.machineCalibration.saddle?.name ?? ''} bike={bike} school={school} />
        </section>
      </div>
      {retired === null && <CareList bikeId={bike.id} care={care} />}
      {measured.length > 0 && (
        <section className={parts.part}>
          <h2>Measured</h2>
          <ul className={styles.rows}>
            {measured.map((row) => (
              <li key={row.id}>
                <div>
                  {row.text}
                  <p className={parts.quiet}>{row.when}</p>
                </div>
                <Button
                  onClick={() =>
                    after(() => command('bikes.withdrawBikeReading', { bikeId: bike.id, readingId: row.id }))
                  }
                >
                  Take back
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {looks.length > 0 && (
        <section className={parts.part}>
          <h2>Looked over</h2>
          <ul className={styles.rows}>
            {looks.map((look) => (
              <li key={look.id}>
                {look.text}
                <span className={look.good === INSPECTION_ITEMS.length ? parts.good : parts.act}>
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

/** Riders whose numbers were found or made doubtful. */
function Doubtful({ doubtful, isOpened }: Readonly<{ doubtful: MachineViewProps['doubtful']; isOpened: boolean }>) {
  if (doubtful.length === 0) return null
  return (
    <section className={parts.part}>
      <h2>Numbers to look at again</h2>
      <p className={parts.quiet}>
        {isOpened
          ? 'These riders were set up here before it, within half a year.'
          : 'These numbers were saved after the last good tape, before a tape found the change.'}
      </p>
      <ul className={styles.rows}>
        {doubtful.map((rider) => (
          <li key={`${rider.memberId}-${rider.when}`}>
            <Link href={`/riders/${rider.memberId}`}>{rider.name}</Link>
            <span className={parts.quiet}>{rider.when}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** A machine's offset by its riders: proposed, and accepted only by hand. */
function RiderResidual({
  bike,
  residual,
  mayTake,
}: Readonly<{ bike: Machine; residual: PooledResidual; mayTake: boolean }>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const { idFor } = useIdempotencyKey()
  async function take() {
    if (!(await act(() => command('bikes.takeRiderResidual', { bikeId: bike.id }, idFor(residual))))) return
    message.success('Taken until a tape is laid: numbers on this bike follow.', 4)
    router.refresh()
  }
  return (
    <section className={`${parts.part} ${styles.residual}`}>
      <h2>What its riders say</h2>
      <p className={styles.says}>{formatResidual(residual, shown)}</p>
      <p className={parts.quiet}>
        Riders checked here needed other marks than on other bikes, all in one direction. Nothing was changed. Lay the
        tape and see whether the post has slipped.
      </p>
      <div className={styles.ways}>
        <Button size="large" type="primary" href="#tape">
          Lay the tape
        </Button>
        {mayTake && (
          <Button size="large" onClick={take} loading={busy}>
            Take it until then
          </Button>
        )}
      </div>
    </section>
  )
}
