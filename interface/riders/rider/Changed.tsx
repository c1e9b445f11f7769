'use client'
import { Button, Modal } from 'antd'
import { useEffect, useMemo, useState } from 'react'
import type { Bike, BikeType } from '@/core/bikes/bike/bike'
import { movedAxes, type Marks } from '@/core/base/conventions'
import { CHANGE_MM, CHANGE_NAME, formatMoved } from '@/core/messages/setups/register'
import type { AfterChangeRequest } from '@/core/operations/requests/afterChange'
import { isErrorResponse } from '@/core/operations/errorResponse'
import type { TranslateResponse } from '@/core/operations/requests/translate'
import { CHANGES, type Change } from '@/core/setups/register/entry'
import { parseLength } from '@/core/base/length'
import { LengthField } from '../../kit/LengthField'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { partId, useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { useAction } from '../../commands/useAction'
import { requestCore } from '../../compute/requestCore'
import { command } from '../../commands/command'
import styles from './changed.module.css'

/** Numbers in force, of one type and purpose. */
export type NumbersOnType = Readonly<{ entryId: string; name: string; bikeType: BikeType; bike: Bike; marks: Marks }>

type Props = Readonly<{ memberId: string; numbers: readonly NumbersOnType[]; close: () => void; onSaved: () => void }>

/** More than this is no change of shoes, saddle or post, mm. */
const MAX_MM = 60

/** Something changed: its millimetres, and what that makes of the numbers on every type, as a proposal. */
export function Changed({ memberId, numbers, close, onSaved }: Props) {
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const { idFor } = useIdempotencyKey()
  const [what, setWhat] = useState<Change>('shoes')
  const [typed, setTyped] = useState('')
  const read = parseLength(typed, shown === 'imperial' ? 'in' : 'mm')
  const mm = read.outcome === 'read' && Math.abs(read.mm) <= MAX_MM && read.mm !== 0 ? read.mm : null
  const proposals = useProposals(numbers, what, mm, shown)
  const changed = numbers.filter(({ entryId, marks }) => {
    const found = proposals?.[entryId]
    return found && movedAxes(marks, { ...marks, ...found.marks }).length > 0
  })

  async function saveAll() {
    if (mm === null) return
    const id = idFor([memberId, what, mm, numbers.map(({ entryId }) => entryId)])
    const parts = numbers.map(({ entryId }, i) => ({ id: partId(id, i), entryId }))
    if (await act(() => command('register.saveAfterChange', { memberId, what, mm, parts }, id))) onSaved()
  }
  return (
    <Modal open onCancel={close} footer={null} width={720} title="Shoes or saddle changed">
      <div className={styles.choices} role="group" aria-label="What changed">
        {CHANGES.map((one) => (
          <button key={one} type="button" aria-pressed={one === what} onClick={() => setWhat(one)}>
            {CHANGE_NAME[one]}
          </button>
        ))}
      </div>
      <LengthField
        title={CHANGE_MM[what]}
        typed={typed}
        onTyped={setTyped}
        placeholder={shown === 'imperial' ? 'in; minus the other way' : 'mm; minus the other way'}
        wrong={typed.trim() !== '' && mm === null}
      />
      {typed.trim() !== '' && mm === null && (
        <p className={styles.act}>A length up to 6 cm, in mm where nothing is said; minus goes the other way.</p>
      )}
      {mm !== null && (
        <ul className={styles.found} aria-live="polite">
          {numbers.map(({ entryId, name, bikeType, marks }) => {
            const found = proposals?.[entryId]
            return (
              <li key={entryId}>
                <span>{name}</span>
                <b>{found ? formatMoved(bikeType, marks, { ...marks, ...found.marks }) : 'Working it out …'}</b>
                {found && <span>{found.because.slice(0, -1).join(' ')}</span>}
              </li>
            )
          })}
        </ul>
      )}
      {proposals && mm !== null && (
        <p className={styles.quiet}>
          {changed.length === 0
            ? 'Less than half a mark everywhere: nothing is moved, and it is written down.'
            : 'A proposal, to the nearest marks. Look at the knee before the first ride.'}
        </p>
      )}
      <Button type="primary" size="large" disabled={!proposals || mm === null} loading={busy} onClick={saveAll}>
        Keep for all
      </Button>
    </Modal>
  )
}

/** What the change makes of each set of numbers, by entry; null until all are worked out. */
function useProposals(
  numbers: readonly NumbersOnType[],
  what: Change,
  mm: number | null,
  lengths: AfterChangeRequest['lengths'],
): Readonly<Record<string, TranslateResponse>> | null {
  const inputs = useMemo(() => ({ held: numbers, what, mm, lengths }), [numbers, what, mm, lengths])
  const [found, setFound] = useState<Readonly<{ of: typeof inputs; all: Record<string, TranslateResponse> }>>()
  useEffect(() => {
    let stale = false
    if (mm === null) return
    async function work(): Promise<void> {
      const all: Record<string, TranslateResponse> = {}
      for (const { entryId, bikeType, bike, marks } of numbers) {
        const answer = await requestCore('afterChange', { bikeType, bike, marks, what, mm, lengths })
        if (!isErrorResponse(answer)) all[entryId] = answer as TranslateResponse
      }
      if (!stale) setFound({ of: inputs, all })
    }
    work().catch(() => undefined)
    return () => {
      stale = true
    }
  }, [inputs, numbers, what, mm, lengths])
  return found?.of === inputs ? found.all : null
}
