'use client'
import { Button, Switch } from 'antd'
import '@/interface/kit/antd/switch.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { Evidence } from '@/core/riders/evidence/registry'
import { SHEET_LENGTH_NAME, formatSheetDoubt } from '@/core/messages/setups/translation'
import type { SheetLength } from '@/core/setups/translate/fitSheet'
import { parseLength } from '@/core/base/length'
import { EMPTY_SHEET, parseFitSheet, type TypedSheet } from '../otherBikes/parseFitSheet'
import { ChoiceGroup } from '../../setups/steps/ChoiceGroup'
import { parseBodyLengths } from '../../setups/steps/parseBodyLengths'
import { SOLES } from '../../setups/steps/soles'
import { bodyUnit, LengthField } from '../../kit/LengthField'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { UnitSwitch } from '../../kit/theme/UnitSwitch'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { ownCommand } from '../../commands/command'
import styles from './memberPage.module.css'

const SHEET_LENGTHS: readonly SheetLength[] = ['saddleHeightMm', 'setbackMm', 'reachMm', 'stackMm', 'crankMm']
const ARM_RANGE_MM = [300, 1000] as const
type Experience = 'new' | 'regular' | 'experienced'

/** Before a first visit: a few answers, three lengths with a book at the wall, and one's own bike if there is one. */
export function HomeForm({ token, measured }: { token: string; measured: boolean }) {
  const router = useRouter()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const { idFor, forget } = useIdempotencyKey()
  const [experience, setExperience] = useState<Experience>()
  const [sole, setSole] = useState<string>()
  const [flags, setFlags] = useState({ backSore: false, pregnant: false })
  const [body, setBody] = useState({ stature: '', inseam: '' })
  const [arm, setArm] = useState('')
  const [sheet, setSheet] = useState<TypedSheet>(EMPTY_SHEET)
  const [trouble, setTrouble] = useState<readonly string[]>([])
  const hasBike = SHEET_LENGTHS.some((length) => sheet[length].trim() !== '')

  async function send() {
    const lengths = parseBodyLengths(body, shown)
    const reach = parseLength(arm, bodyUnit(shown))
    const armMm = reach.outcome === 'read' ? Math.round(reach.mm) : null
    const bike = hasBike ? parseFitSheet(sheet, shown) : null
    const wrong = [
      ...(lengths.trouble ? [lengths.trouble] : []),
      ...(arm.trim() !== '' && (armMm === null || armMm < ARM_RANGE_MM[0] || armMm > ARM_RANGE_MM[1])
        ? ['The reach of the arm: from the point of the shoulder to the middle of the fist, such as 62 cm.']
        : []),
      ...(bike?.outcome === 'unread' ? ['Give all five lengths of your own bike, or none.'] : []),
      ...(bike?.outcome === 'asks' ? bike.doubts.map((doubt) => formatSheetDoubt(doubt, shown)) : []),
    ]
    setTrouble(wrong)
    if (wrong.length > 0) return
    const evidence: Evidence[] = [
      ...(experience
        ? [
            {
              kind: 'rider' as const,
              experience,
              ...(sole && { soleMm: Number(sole) }),
              ...(flags.backSore && { backSore: true }),
              ...(flags.pregnant && { pregnant: true }),
            },
          ]
        : []),
      ...(lengths.statureMm ? [{ kind: 'stature' as const, mm: lengths.statureMm }] : []),
      ...(lengths.inseamMm ? [{ kind: 'inseam' as const, mm: lengths.inseamMm, shod: false }] : []),
      ...(armMm ? [{ kind: 'segment' as const, segment: 'arm' as const, mm: armMm }] : []),
    ]
    if (evidence.length === 0 && !hasBike) return setTrouble(['Answer or measure something first.'])
    const measures = { evidence, ...(bike?.outcome === 'read' && { ownBike: bike.from }) }
    if (!(await act(() => ownCommand(token, 'ownPage.sendHome', { home: measures as never }, idFor(measures))))) return
    forget()
    router.refresh()
  }

  return (
    <section className={styles.part} aria-label="From home">
      <div className={styles.titled}>
        <h2>{measured ? 'Measured again?' : 'From home'}</h2>
        <UnitSwitch />
      </div>
      <ChoiceGroup
        title="Indoor riding"
        given={experience}
        choices={[
          { value: 'new', name: 'New' },
          { value: 'regular', name: 'Regular' },
          { value: 'experienced', name: 'Experienced' },
        ]}
        onChoose={setExperience}
      />
      <ChoiceGroup title="The soles you ride in" given={sole} choices={SOLES} onChoose={setSole} />
      <div className={styles.flags}>
        <label>
          <Switch checked={flags.backSore} onChange={(backSore) => setFlags((all) => ({ ...all, backSore }))} /> Sore
          back
        </label>
        <label>
          <Switch checked={flags.pregnant} onChange={(pregnant) => setFlags((all) => ({ ...all, pregnant }))} />{' '}
          Pregnant: your clinician’s word comes first
        </label>
      </div>
      <div className={styles.fields}>
        <LengthField
          title="How tall, barefoot"
          typed={body.stature}
          placeholder={shown === 'imperial' ? '5′6″' : '168 cm'}
          onTyped={(stature) => setBody((all) => ({ ...all, stature }))}
        />
        <LengthField
          title="Inseam: a thick book up between the legs, its top to the floor"
          typed={body.inseam}
          placeholder={shown === 'imperial' ? '31 in' : '78 cm'}
          onTyped={(inseam) => setBody((all) => ({ ...all, inseam }))}
        />
        <LengthField
          title="Reach: shoulder’s point to the middle of the fist"
          typed={arm}
          placeholder={shown === 'imperial' ? '24 in' : '62 cm'}
          onTyped={setArm}
        />
      </div>
      <details className={styles.how}>
        <summary>Your own bike, by tape</summary>
        <p className={styles.quiet}>
          All from the centre of the crank axle: straight to the saddle’s top; from there level back to the saddle’s
          nose; from the nose level to the grip; and straight up to the grip. The crank’s length is stamped inside it.
        </p>
        <div className={styles.fields}>
          {SHEET_LENGTHS.map((length) => (
            <LengthField
              key={length}
              title={SHEET_LENGTH_NAME[length]}
              typed={sheet[length]}
              placeholder={shown === 'imperial' ? 'in' : 'mm'}
              onTyped={(text) => setSheet((all) => ({ ...all, [length]: text }))}
            />
          ))}
        </div>
      </details>
      <div aria-live="polite">
        {trouble.map((line) => (
          <p key={line} className={styles.act}>
            {line}
          </p>
        ))}
      </div>
      <Button type="primary" size="large" block loading={busy} onClick={send}>
        Work out my first marks
      </Button>
    </section>
  )
}
