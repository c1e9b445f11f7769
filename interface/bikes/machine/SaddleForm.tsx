'use client'
import { Button, Input, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useState } from 'react'
import { parseLength } from '@/core/base/length'
import { SADDLE_SHAPES, TILT_ACROSS } from '@/core/bikes/bike/bike'
import { PADDINGS, RELIEFS, type SaddleModel } from '@/core/bikes/saddles/saddle'
import { BOARD_TEXT, PADDING_TEXT, RELIEF_TEXT, SHAPE_TEXT } from '@/core/messages/bikes/saddles'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { LengthField } from '../../kit/LengthField'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import parts from '../parts.module.css'
import type { StudioSaddle } from './machine'

const LENGTHS = [
  ['widthMm', 'Width at its widest', [80, 320]],
  ['lengthMm', 'Length', [1, 1000]],
  ['noseAheadMm', 'Nose ahead of widest part', [0, 400]],
  ['clampMm', 'Clamp behind the nose', [0, 400]],
  ['giveMm', 'Gives under a rider', [0, 80]],
] as const
type LengthName = (typeof LENGTHS)[number][0]
const NEEDED: readonly LengthName[] = ['widthMm', 'lengthMm', 'noseAheadMm']

const NEW: SaddleModel = {
  name: '',
  widthMm: 150,
  lengthMm: 270,
  noseAheadMm: 150,
  shape: 'flat',
  relief: 'none',
  padding: 'medium',
  board: 'highestPoints',
}

/** A saddle in the studio's words, with what of it matters under a rider. */
export function SaddleForm({
  start,
  onSaved,
}: Readonly<{ start: StudioSaddle | null; onSaved: (id: string) => void }>) {
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const [id] = useState(() => start?.id ?? crypto.randomUUID())
  const [model, setModel] = useState<SaddleModel>(start?.model ?? NEW)
  const [typed, setTyped] = useState<Readonly<Record<LengthName, string>>>(
    () =>
      Object.fromEntries(
        LENGTHS.map(([name]) => {
          const mm = (start?.model ?? NEW)[name]
          return [name, mm === undefined ? '' : `${mm} mm`]
        }),
      ) as Record<LengthName, string>,
  )
  const [pieces, setPieces] = useState(String(start?.model.pieces ?? ''))
  const read = LENGTHS.map(([name, , [least, most]]) => {
    if (typed[name].trim() === '') return { name, mm: undefined, wrong: NEEDED.includes(name) }
    const found = parseLength(typed[name], shown === 'imperial' ? 'in' : 'mm')
    const mm = found.outcome === 'read' ? found.mm : NaN
    return { name, mm, wrong: !(mm >= least && mm <= most) }
  })
  const count = pieces.trim() === '' ? undefined : Number(pieces)
  const isCountWrong = count !== undefined && !(Number.isInteger(count) && count >= 1 && count <= 999)
  const isWrong = model.name.trim() === '' || isCountWrong || read.some(({ wrong }) => wrong)
  async function save() {
    const { clampMm: _clamp, giveMm: _give, pieces: _pieces, ...rest } = model
    const lengths = Object.fromEntries(read.flatMap(({ name, mm }) => (mm === undefined ? [] : [[name, mm]])))
    const whole = { ...rest, ...lengths, name: model.name.trim(), ...(count !== undefined && { pieces: count }) }
    if (await act(() => command('bikes.saveSaddle', { saddleId: id, model: whole as SaddleModel }))) onSaved(id)
  }
  const choice = <V extends string>(
    key: 'shape' | 'relief' | 'padding' | 'board',
    title: string,
    values: readonly V[],
    words: Readonly<Record<V, string>>,
  ) => (
    <label>
      {title}
      <Select
        size="large"
        aria-label={title}
        value={model[key] as V}
        onChange={(value) => setModel((before) => ({ ...before, [key]: value }))}
        options={values.map((value) => ({ value, label: words[value] }))}
      />
    </label>
  )
  return (
    <form
      className={parts.fields}
      onSubmit={(event) => {
        event.preventDefault()
        if (!isWrong) void save()
      }}
    >
      <label className={parts.wide}>
        Called here
        <Input
          size="large"
          autoComplete="off"
          maxLength={60}
          value={model.name}
          onChange={(event) => setModel((before) => ({ ...before, name: event.target.value }))}
        />
      </label>
      {LENGTHS.map(([name, title]) => (
        <LengthField
          key={name}
          title={title}
          typed={typed[name]}
          onTyped={(text) => setTyped((before) => ({ ...before, [name]: text }))}
          wrong={read.find((one) => one.name === name)!.wrong}
        />
      ))}
      <label>
        Pieces, if few
        <Input
          size="large"
          inputMode="numeric"
          value={pieces}
          status={isCountWrong ? 'error' : ''}
          onChange={(event) => setPieces(event.target.value)}
        />
      </label>
      {choice('shape', 'Shape', SADDLE_SHAPES, SHAPE_TEXT)}
      {choice('relief', 'Relief', RELIEFS, RELIEF_TEXT)}
      {choice('padding', 'Padding', PADDINGS, PADDING_TEXT)}
      {choice('board', 'Board lies over', TILT_ACROSS, BOARD_TEXT)}
      <Button
        className={parts.wide}
        type="primary"
        size="large"
        htmlType="submit"
        disabled={isWrong}
        loading={busy}
        block
      >
        Keep
      </Button>
    </form>
  )
}
