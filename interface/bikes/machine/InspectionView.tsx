'use client'
import { PrinterOutlined } from '@ant-design/icons'
import { Button, Input } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { INSPECTION_ITEMS, type InspectionItem } from '@/core/bikes/bike/inspection'
import { INSPECTION_ITEM_TEXT } from '@/core/messages/bikes/machine'
import { command } from '../../commands/command'
import { partId, useIdempotencyKey } from '../../commands/useIdempotencyKey'
import parts from '../parts.module.css'
import { CareItem, type CareLine } from './CareList'
import styles from './inspectionView.module.css'
import { useAction } from '../../commands/useAction'

export type InspectionBike = Readonly<{
  id: string
  number: number
  type: string
  state: string
  due: boolean
  care: readonly CareLine[]
}>
export type InspectionViewProps = Readonly<{
  bikes: readonly InspectionBike[]
  start: number | null
  studio: string
  day: string
}>

/** A round through the room, one bike after the other, one thumb: good or wrong on each item, and on to the next. */
export function InspectionView({ bikes, start, studio, day }: InspectionViewProps) {
  const router = useRouter()
  const { act, busy } = useAction()
  const due = bikes.filter((b) => b.due)
  const [at, setAt] = useState<string | undefined>(
    () => bikes.find((b) => b.number === start)?.id ?? due[0]?.id ?? bikes[0]?.id,
  )
  const [checks, setChecks] = useState<Readonly<Partial<Record<InspectionItem, 'good' | 'wrong'>>>>({})
  const [notes, setNotes] = useState<Readonly<Partial<Record<InspectionItem, string>>>>({})
  const { idFor, forget } = useIdempotencyKey()
  const bike = bikes.find((b) => b.id === at)
  const open = INSPECTION_ITEMS.filter((item) => !checks[item])
  const wrong = INSPECTION_ITEMS.filter((item) => checks[item] === 'wrong')

  function turnTo(id: string | undefined) {
    setAt(id)
    setChecks({})
    setNotes({})
    forget()
    window.scrollTo({ top: 0 })
  }

  async function save() {
    const found = wrong.map((item) => ({ item, note: notes[item] ?? '' }))
    const lookId = idFor([bike!.id, found])
    const faults = found.map((fault, i) => ({ ...fault, id: partId(lookId, i) }))
    if (!(await act(() => command('bikes.recordInspection', { bikeId: bike!.id, wrong: faults }, lookId)))) return
    router.refresh()
    const rest = due.filter((b) => b.id !== bike!.id)
    turnTo((rest.find((b) => b.number > bike!.number) ?? rest[0])?.id)
  }

  return (
    <>
      <div className={`${parts.round} no-print`}>
        <div>
          <div className={parts.head}>
            <h1>{bike ? `Bike ${bike.number}` : 'All looked over'}</h1>
            <Button size="large" icon={<PrinterOutlined />} onClick={() => window.print()}>
              Print the sheet
            </Button>
          </div>
          <p className={parts.lead}>
            {bike
              ? `${bike.type}. ${bike.state}. ${due.length} of ${bikes.length} to look over.`
              : 'Every bike was looked over. The next ones appear here when they are due.'}
          </p>
          {bike &&
            INSPECTION_ITEMS.map((item) => (
              <div key={item} className={styles.item} role="group" aria-label={INSPECTION_ITEM_TEXT[item][0]}>
                <div>
                  <b>{INSPECTION_ITEM_TEXT[item][0]}</b>
                  <p className={parts.quiet}>{INSPECTION_ITEM_TEXT[item][1]}</p>
                </div>
                {(['good', 'wrong'] as const).map((word) => (
                  <button
                    key={word}
                    type="button"
                    aria-pressed={checks[item] === word}
                    onClick={() => setChecks((s) => ({ ...s, [item]: word }))}
                  >
                    {word}
                  </button>
                ))}
                {checks[item] === 'wrong' && (
                  <Input
                    size="large"
                    maxLength={300}
                    aria-label={`What is wrong: ${INSPECTION_ITEM_TEXT[item][0]}`}
                    placeholder="What is wrong"
                    value={notes[item] ?? ''}
                    onChange={(e) => setNotes((n) => ({ ...n, [item]: e.target.value }))}
                  />
                )}
              </div>
            ))}
          {bike && <ToSeeTo bike={bike} />}
          {bike && (
            <div className={parts.foot}>
              <Button
                size="large"
                disabled={open.length === 0}
                onClick={() =>
                  setChecks((s) => ({
                    ...Object.fromEntries(INSPECTION_ITEMS.map((item) => [item, 'good' as const])),
                    ...s,
                  }))
                }
              >
                The rest is good
              </Button>
              <Button size="large" type="primary" loading={busy} disabled={open.length > 0} onClick={save}>
                {wrong.length > 0 ? 'Keep, out of use' : 'Keep, next bike'}
              </Button>
            </div>
          )}
        </div>
        <div className={parts.picks} aria-label="Bikes">
          {bikes.map((b) => (
            <Button key={b.id} type={b.id === at ? 'primary' : 'default'} onClick={() => turnTo(b.id)}>
              {b.number}
              {(b.due || b.care.some(({ outcome }) => outcome === 'due')) && <i className={styles.due} title="due" />}
            </Button>
          ))}
        </div>
      </div>
      <div className={styles.onPaper}>
        <h1>
          {studio}: round of {day}
        </h1>
        <table className={styles.sheet}>
          <thead>
            <tr>
              <th>Bike</th>
              {INSPECTION_ITEMS.map((item) => (
                <th key={item}>{INSPECTION_ITEM_TEXT[item][0]}</th>
              ))}
              <th>Note, name</th>
            </tr>
          </thead>
          <tbody>
            {bikes.map((b) => (
              <tr key={b.id}>
                <td>
                  {b.number} {b.type}
                </td>
                {INSPECTION_ITEMS.map((item) => (
                  <td key={item} />
                ))}
                <td style={{ width: '22%' }} />
              </tr>
            ))}
          </tbody>
        </table>
        <p>
          Close every pin and lever and shake it. Never past the insertion mark. The maker’s manual and local codes come
          first.
        </p>
      </div>
    </>
  )
}

/** What of a bike wears and is due, or was not seen to yet. */
function ToSeeTo({ bike }: Readonly<{ bike: InspectionBike }>) {
  if (bike.care.length === 0) return null
  return (
    <section aria-label="To see to" className={styles.care}>
      <h2>To see to</h2>
      <ul>
        {bike.care.map((line) => (
          <CareItem key={`${bike.id} ${line.part}`} bikeId={bike.id} line={line} />
        ))}
      </ul>
    </section>
  )
}
