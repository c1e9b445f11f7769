'use client'
import { Button, Modal, Segmented } from 'antd'
import { useMemo, useState } from 'react'
import type { BikeType } from '@/core/bikes/bike/bike'
import { SHEET_LENGTH_NAME, formatSheetDoubt } from '@/core/messages/setups/translation'
import type { SaddlePlace, SheetLength } from '@/core/setups/translate/fitSheet'
import { partId, useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import type { StudioType } from './OtherBikes'
import { LengthField } from '../../kit/LengthField'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import styles from './fromTape.module.css'
import { EMPTY_SHEET, parseFitSheet, type TypedSheet } from './parseFitSheet'
import { useTranslations, type Numbers } from './useTranslations'

const PLACES: { value: SaddlePlace; label: string }[] = [
  { value: 'nose', label: 'Nose' },
  { value: 'middle', label: 'Middle' },
  { value: 'seatPoint', label: 'Widest' },
]

type Props = Readonly<{ memberId: string; types: readonly StudioType[]; close: () => void; onSaved: () => void }>

/** A rider's own bike by its four lengths and crank, and what that is on each of the studio's types. */
export function FromTape({ memberId, types, close, onSaved }: Props) {
  const { shown } = useUnitSystem()
  const [typed, setTyped] = useState<TypedSheet>(EMPTY_SHEET)
  const [isConfirming, setConfirming] = useState(false)
  const parsed = useMemo(() => parseFitSheet(typed, shown), [typed, shown])
  const numbers = useMemo<Numbers | null>(
    () => (parsed.outcome === 'read' ? { from: parsed.from, lengths: shown } : null),
    [parsed, shown],
  )
  const bikeTypes = useMemo(() => types.map(({ bikeType }) => bikeType), [types])
  const { act, busy } = useAction()
  const { idFor } = useIdempotencyKey()
  async function saveAll() {
    if (parsed.outcome !== 'read') return
    const { from } = parsed
    const id = idFor([memberId, from])
    const parts = types.map(({ lineId }, i) => ({ id: partId(id, i), lineId }))
    if (await act(() => command('register.saveFromTape', { memberId, from, parts }, id))) onSaved()
  }
  const wrong = (length: SheetLength) =>
    isConfirming &&
    (parsed.outcome === 'unread'
      ? parsed.wrong.includes(length)
      : parsed.outcome === 'asks' && parsed.doubts.some((doubt) => doubt.length === length))
  const field = (length: SheetLength) => (
    <LengthField
      title={SHEET_LENGTH_NAME[length]}
      typed={typed[length]}
      placeholder={shown === 'imperial' ? 'in' : 'mm'}
      wrong={wrong(length)}
      onTyped={(text) => setTyped((all) => ({ ...all, [length]: text }))}
      onEnter={() => setConfirming(true)}
    />
  )
  return (
    <Modal open onCancel={close} footer={null} width={760} title="From the rider’s own bike">
      <p className={styles.quiet}>
        With a tape or off a fit sheet, all from the centre of the crank axle: saddle height straight to the saddle’s
        top, setback and reach along the level, stack straight up to the grip.
      </p>
      <div className={styles.fields}>
        {field('saddleHeightMm')}
        {field('stackMm')}
        {field('crankMm')}
      </div>
      <div className={styles.pairs}>
        {field('setbackMm')}
        <label>
          Setback to the saddle’s
          <Segmented
            block
            options={PLACES}
            value={typed.setbackFrom}
            onChange={(setbackFrom) => setTyped((all) => ({ ...all, setbackFrom }))}
          />
        </label>
        {field('reachMm')}
        <label>
          Reach from the saddle’s
          <Segmented
            block
            options={PLACES}
            value={typed.reachFrom}
            onChange={(reachFrom) => setTyped((all) => ({ ...all, reachFrom }))}
          />
        </label>
      </div>
      <div aria-live="polite">
        {isConfirming && parsed.outcome === 'unread' && (
          <p className={styles.act}>All five are needed. What is red is not a length.</p>
        )}
        {isConfirming &&
          parsed.outcome === 'asks' &&
          parsed.doubts.map((doubt) => (
            <p key={doubt.length} className={styles.act}>
              {formatSheetDoubt(doubt, shown)}{' '}
              {doubt.meantMm !== null && (
                <Button
                  onClick={() => setTyped((all) => ({ ...all, [doubt.length]: `${doubt.meantMm!.toFixed(1)} mm` }))}
                >
                  Yes
                </Button>
              )}
            </p>
          ))}
      </div>
      {numbers ? (
        <>
          <Translated numbers={numbers} types={bikeTypes} />
          <Button type="primary" size="large" loading={busy} onClick={saveAll}>
            Keep, as on the road bike
          </Button>
        </>
      ) : (
        <Button type="primary" size="large" onClick={() => setConfirming(true)}>
          Show the numbers
        </Button>
      )}
    </Modal>
  )
}

function Translated({ numbers, types }: { numbers: Numbers; types: readonly BikeType[] }) {
  const found = useTranslations(numbers, types)
  return (
    <ul className={styles.found}>
      {types.map(({ name }) => (
        <li key={name}>
          <b>{found[name]?.sentence ?? `${name}: working it out …`}</b>
          <span>{found[name]?.because.slice(0, -1).join(' ')}</span>
        </li>
      ))}
      <li className={styles.quiet}>Translated, not looked at: look at the knee before the first ride.</li>
    </ul>
  )
}
