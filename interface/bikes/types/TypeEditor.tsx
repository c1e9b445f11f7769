'use client'
import { Button, Checkbox, Input, Select } from 'antd'
import '@/interface/kit/antd/checkbox.generated.css'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useMemo, useState, type ReactNode } from 'react'
import { referenceMarks } from '@/core/bikes/bike/referenceMarks'
import { AXES, type AxisName } from '@/core/base/conventions'
import type { BikeTypeDocument } from '@/core/operations/typeFile'
import { formatLabel } from '@/core/messages/words/labels'
import { BikeDrawing } from '../../kit/drawing/BikeDrawing'
import { LengthField } from '../../kit/LengthField'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { command } from '../../commands/command'
import { EquipmentFields } from './EquipmentFields'
import { ScaleFields } from './ScaleFields'
import { FurtherFields } from './FurtherFields'
import { GripFields } from './GripFields'
import parts from '../parts.module.css'
import styles from './typeEditor.module.css'
import { parseDraft } from './parseDraft'
import { draftFromDocument, NEW_DRAFT, type AxisDraft, type TypeDraft } from './typeDraft'
import { useAction } from '../../commands/useAction'
import { useLocalDraft } from './useLocalDraft'

type Props = Readonly<{ start: BikeTypeDocument | null; baseId: string | null; copy: boolean; version: number }>

const LENGTHS = ['saddleHeightMm', 'setbackMm', 'reachMm', 'stackMm'] as const

/** A type as its scales are printed and built; the drawing follows every key, to scale. */
export function TypeEditor({ start, baseId, copy, version }: Props) {
  const router = useRouter()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const [id] = useState(() => crypto.randomUUID())
  const { draft, setDraft, found, forget, discard } = useLocalDraft(`${copy ? 'copy-' : ''}${baseId ?? 'new'}`, () =>
    start ? { ...draftFromDocument(start, shown), ...(copy && { name: '' }) } : NEW_DRAFT,
  )
  const { document: document, issues: issues } = useMemo(() => parseDraft(draft, shown), [draft, shown])
  const drawn = useMemo(
    () => document ?? parseDraft({ ...draft, name: draft.name || '–' }, shown).document,
    [document, draft, shown],
  )
  const [last, setLast] = useState<BikeTypeDocument | null>(drawn)
  if (drawn && drawn !== last) setLast(drawn)
  const [isConfirming, setConfirming] = useState(false)
  const set = (change: Partial<TypeDraft>) => setDraft((d) => ({ ...d, ...change }))
  const setAxis = (name: AxisName, change: Partial<AxisDraft>) =>
    setDraft((d) => ({ ...d, axes: { ...d.axes, [name]: { ...d.axes[name], ...change } } }))
  const wrong = (field: string) => (isConfirming || draft.name !== '') && issues.some((f) => f.field === field)

  async function save() {
    if (!document) return setConfirming(true)
    const saved = await act(() => command('bikes.saveType', { baseId: copy ? null : baseId, document }, id))
    if (!saved) return
    forget()
    router.push(start && !copy ? '/bikes' : `/bikes/types/${saved.lineId}/tape`)
    router.refresh()
  }

  const length = (field: keyof TypeDraft, title: string) => (
    <LengthField
      key={field}
      title={title}
      typed={String(draft[field])}
      onTyped={(v) => set({ [field]: v })}
      wrong={wrong(field)}
    />
  )
  const marks = last ? referenceMarks(last.bikeType) : {}
  const zero = last
    ? AXES.flatMap((name) =>
        marks[name] === undefined
          ? []
          : [`${AXIS_TITLE[name].toLowerCase()} ${formatLabel(last.bikeType, name, marks[name])}`],
      ).join(', ')
    : ''
  return (
    <>
      <div className={parts.head}>
        <h1>{start && !copy ? start.bikeType.name : 'New type'}</h1>
      </div>
      <p className={parts.lead}>
        {start && !copy
          ? `Version ${version}. Saving makes version ${version + 1}; set-ups keep the version they were made on.`
          : 'Describe what is printed and built. Rough lengths are enough: the tape finds the true ones.'}
      </p>
      {found && (
        <p className={styles.kept}>
          What was typed here last is still here, not saved yet. <Button onClick={discard}>Begin anew</Button>
        </p>
      )}
      <div className={styles.editor}>
        <div>
          <fieldset className={parts.group}>
            <legend>The bike</legend>
            <div className={parts.fields}>
              <label className={parts.wide}>
                Name
                <Input
                  size="large"
                  autoComplete="off"
                  maxLength={80}
                  value={draft.name}
                  status={isConfirming && draft.name.trim() === '' ? 'error' : ''}
                  onChange={(e) => set({ name: e.target.value })}
                />
              </label>
              {length('crank', 'Crank')}
              {length('axleHeight', 'Crank axle above floor')}
              {length('pedalSurface', 'Pedal axle to surface')}
              {length('cageSurface', 'on the cage side, if not')}
              {length('cleatSurface', 'on the cleat side, if not')}
              {length('pedalSpacing', 'Between the cranks')}
            </div>
          </fieldset>
          <ScaleFields draft={draft} issues={issues} wrong={wrong} set={set} setAxis={setAxis} />
          <SlideFields draft={draft} set={set} />
          <FurtherFields draft={draft} issues={issues} set={set} setAxis={setAxis} />
          <GripFields grips={draft.grips} wrong={wrong} onChange={(grips) => set({ grips })} />
          <fieldset className={parts.group}>
            <legend>The saddle</legend>
            <div className={parts.fields}>
              {length('noseAhead', 'Nose ahead of widest part')}
              {length('saddleLength', 'Length')}
              <label>
                Shape
                <Select
                  size="large"
                  aria-label="Shape"
                  value={draft.shape}
                  onChange={(shape) => set({ shape })}
                  options={[
                    { value: 'flat', label: 'flat' },
                    { value: 'tailKick', label: 'slight tail kick' },
                    { value: 'curved', label: 'curved' },
                  ]}
                />
              </label>
            </div>
          </fieldset>
          <fieldset className={parts.group}>
            <legend>About where it stands</legend>
            <p className={parts.quiet}>With {zero || 'every part at its zero'}, from the crank axle.</p>
            <div className={parts.fields}>
              {length('saddleHeight', 'Saddle height')}
              {length('setback', 'Setback')}
              {length('reach', 'Reach')}
              {length('stack', 'Stack')}
            </div>
          </fieldset>
          <EquipmentFields equipment={draft.equipment} onChange={(equipment) => set({ equipment })} />
        </div>
        <div className={styles.drawn}>
          {last && <BikeDrawing bikeType={last.bikeType} marks={marks} shown={shown} lengths={LENGTHS} />}
        </div>
      </div>
      <Foot issues={issues.filter((f) => isConfirming || f.field !== 'name')} busy={busy} onSave={save}>
        {start && !copy ? `Save version ${version + 1}` : 'Save, then lay the tape'}
      </Foot>
    </>
  )
}

/** What of a usual bike this type has. */
function SlideFields({ draft, set }: Readonly<{ draft: TypeDraft; set: (change: Partial<TypeDraft>) => void }>) {
  return (
    <fieldset className={parts.group}>
      <Checkbox
        className={parts.line}
        checked={draft.seatSlides}
        onChange={(e) => set({ seatSlides: e.target.checked })}
      >
        The seat slides forward and back
      </Checkbox>
      <Checkbox className={parts.line} checked={draft.barSlides} onChange={(e) => set({ barSlides: e.target.checked })}>
        The bars slide forward and back
      </Checkbox>
      <Checkbox
        className={parts.line}
        checked={draft.forearmGaugeValid}
        onChange={(e) => set({ forearmGaugeValid: e.target.checked })}
      >
        The forearm gauge is valid on this type
      </Checkbox>
    </fieldset>
  )
}

type FootProps = Readonly<{
  issues: ReturnType<typeof parseDraft>['issues']
  busy: boolean
  onSave: () => void
  children: ReactNode
}>

/** What is still wrong, the way out, and saving. */
function Foot({ issues, busy, onSave, children }: FootProps) {
  return (
    <div className={parts.foot}>
      <div aria-live="polite">
        {issues.slice(0, 3).map((issue) => (
          <p key={issue.reason} className={parts.act}>
            {issue.reason}.
          </p>
        ))}
      </div>
      <Button size="large" href="/bikes">
        Leave
      </Button>
      <Button size="large" type="primary" loading={busy} onClick={onSave}>
        {children}
      </Button>
    </div>
  )
}
