import { fireEvent, render, screen } from '@testing-library/react'
import type { Marks } from '@/core/base/conventions'
import type { Evidence } from '@/core/riders/evidence/registry'
import type { MisSetResponse } from '@/core/operations/requests/misSet'
import { recommend } from '@/core/operations/requests/recommend'
import { schoolOf, type School } from '@/core/base/school/school'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { ChoiceGroup } from '../steps/ChoiceGroup'
import { SliderInput } from '../steps/SliderInput'
import { Numbers } from '../questions/Numbers'
import { RiderQuestions } from '../questions/TalkQuestions'
import { TypedAngle } from '../questions/TypedAngle'
import { StepPanel } from './StepPanel'
import type { StepPanelProps } from '../steps/stepPanelProps'
import type { Row } from '../steps/flow'
import { formatPrompt } from '@/core/messages/setups/setupPrompts'
import { stepPrompt } from './stepPrompt'

jest.mock('../../commands/command', () => ({ command: jest.fn() }))

const prompt = (of: StepPanelProps) => formatPrompt(stepPrompt(of))

const rowsOf = (...evidence: Evidence[]): Row[] => evidence.map((row, i) => ({ id: String(i), row }))
const at = { seatHeight: '8', seatSlide: 'D', barHeight: '5', barSlide: '0' }

function props(step: StepPanelProps['step'], rows: Row[]): StepPanelProps {
  const evidence = rows.map((r) => r.row)
  const answer = recommend({ bikeType: HOLES_BIKE, evidence, samples: 400 })
  const nothing = () => undefined
  return {
    step,
    check: 'rider',
    checks: [],
    rows,
    answer,
    working: false,
    set: evidence.some((e) => e.kind === 'set'),
    shown: answer.marks,
    landmark: 'hipCrest',
    trouble: '',
    misSet: null,
    context: {
      setupId: 'set-up',
      memberId: 'rider',
      today: '2026-03-10',
      shorterLeg: null,
      limitTexts: [],
      consent: { name: 'Ylva', agrees: false, wording: 'May we note it?' },
      bikeId: 'bike',
      bikeType: HOLES_BIKE,
      school: schoolOf(),
      ownSchool: {},
      previous: null,
      answeredBefore: null,
      landmarks: ['hipCrest', 'between'],
    },
    saving: { finished: false, busy: false, moving: false, canSave: true, purpose: 'usual' },
    actions: {
      onCheck: nothing,
      onLandmark: nothing,
      onAdd: nothing,
      onReplace: nothing,
      onTakenAt: nothing,
      onStep: nothing,
      onPurpose: nothing,
      onFinish: nothing,
    },
  }
}

/** The same props in a school of its own. */
const inSchool = (of: StepPanelProps, own: Partial<School>): StepPanelProps => ({
  ...of,
  context: { ...of.context, school: schoolOf(own) },
})
/** The same props once the numbers are saved. */
const saved = (of: StepPanelProps): StepPanelProps => ({ ...of, saving: { ...of.saving, finished: true } })

test('an answer given stays pressed, and another tap corrects it', () => {
  const chosen: string[] = []
  const { rerender } = render(
    <ChoiceGroup
      title="Knee"
      choices={[
        { value: 'locked', name: 'Locked' },
        { value: 'bent', name: 'Deep bend' },
      ]}
      onChoose={(v) => chosen.push(v)}
    />,
  )
  fireEvent.click(screen.getByRole('button', { name: 'Locked' }))
  rerender(
    <ChoiceGroup
      title="Knee"
      given="locked"
      choices={[
        { value: 'locked', name: 'Locked' },
        { value: 'bent', name: 'Deep bend' },
      ]}
      onChoose={(v) => chosen.push(v)}
    />,
  )
  expect(screen.getByRole('button', { name: 'Locked', pressed: true })).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Deep bend', pressed: false }))
  expect(chosen).toEqual(['locked', 'bent'])
})

test('a reading has no value until touched, steps by one within its scale, and counts only after Keep', () => {
  const read: number[] = []
  render(
    <SliderInput
      title="Knee bend"
      unit="°"
      from={0}
      to={70}
      step={1}
      window={[25, 35]}
      start={33}
      onRead={(v) => read.push(v)}
      name={(v) => `${v} degrees`}
    />,
  )
  const more = screen.getByRole('button', { name: 'Knee bend: more' })
  // The expected value is no reading: Keep is disabled before a touch.
  const slider = screen.getByRole('slider')
  expect(slider.getAttribute('aria-valuetext')).toBe('not read yet')
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /tap the scale/ }).disabled).toBe(true)
  fireEvent.keyDown(slider, { key: 'Enter' })
  fireEvent.click(more)
  expect(slider.getAttribute('aria-valuetext')).toBe('not read yet')
  fireEvent.change(slider, { target: { value: '69' } })
  fireEvent.click(more)
  fireEvent.click(more)
  expect(screen.getByRole('slider').getAttribute('aria-valuetext')).toBe('70 degrees')
  expect(read).toEqual([])
  fireEvent.change(screen.getByRole('slider'), { target: { value: '31' } })
  fireEvent.click(screen.getByRole('button', { name: /31°/ }))
  expect(read).toEqual([31])
  // Typed digits and Enter do the same.
  for (const key of ['2', '8', 'Enter']) fireEvent.keyDown(slider, { key })
  expect(read).toEqual([31, 28])
})

test('a tap at the position of the untouched slider counts as a touch', () => {
  render(
    <SliderInput
      title="Knee bend"
      unit="°"
      from={0}
      to={70}
      step={1}
      window={[25, 35]}
      start={33}
      onRead={() => undefined}
      name={String}
    />,
  )
  fireEvent.pointerUp(screen.getByRole('slider'))
  expect(screen.getByRole('button', { name: '33° keep this' })).toBeTruthy()
})

test('a minus is written as a minus', () => {
  render(
    <SliderInput
      title="String"
      unit=" mm"
      from={-100}
      to={100}
      step={2}
      window={[-15, 15]}
      start={-8}
      given={-8}
      onRead={() => undefined}
      name={String}
    />,
  )
  expect(screen.getByRole('button', { name: /−8 mm/, pressed: true })).toBeTruthy()
})

describe('a typed knee angle', () => {
  function typed(text: string): number[] {
    const read: number[] = []
    render(<TypedAngle onRead={(deg) => read.push(deg)} />)
    const field = screen.getByRole('textbox', { name: 'Type the knee angle' })
    fireEvent.change(field, { target: { value: text } })
    fireEvent.keyDown(field, { key: 'Enter', keyCode: 13 })
    return read
  }

  test('a bend is stored as typed', () => expect(typed('33')).toEqual([33]))

  test('147 needs a confirmation: stored only as the bend of 33 it stands for', () => {
    const read = typed('147')
    expect(read).toEqual([])
    expect(screen.getByRole('alert').textContent).toMatch(/between the bones.*a bend of 33°/)
    fireEvent.click(screen.getByRole('button', { name: 'Keep 33° of bend' }))
    expect(read).toEqual([33])
  })

  test('what no knee does is refused, whatever it was meant to be', () => {
    expect(typed('240')).toEqual([])
    expect(screen.queryByRole('button', { name: /^Keep/ })).toBeNull()
  })
})

test('numbers at an end of a scale need a confirmation, and are stored as on purpose with their reason', () => {
  const added: Evidence[] = []
  const low = { ...at, seatHeight: '1' }
  const numbers = (marks: typeof at, ...more: Evidence[]) => {
    const of = props('numbers', rowsOf({ kind: 'set', at: marks }, ...more))
    return <Numbers {...of} shown={marks} actions={{ ...of.actions, onAdd: (row) => added.push(row) }} />
  }
  const rare = render(numbers(low))
  fireEvent.mouseDown(screen.getByRole('combobox', { name: /purpose/ }))
  fireEvent.click(screen.getByText('For short legs'))
  expect(added).toEqual([{ kind: 'set', at: low, meant: 'shortLegs' }])
  rare.unmount()
  const meant = render(numbers(low, added[0]))
  expect(screen.getByText('On purpose')).toBeTruthy()
  meant.unmount()
  render(numbers(at, { kind: 'stature', mm: 1700 }, { kind: 'kneeAngle', deg: 30, by: 'goniometer', at }))
  expect(screen.queryByText(/On purpose/)).toBeNull()
})

test('what was answered long ago is shown with its age, and applies again with one tap', () => {
  const before: Evidence & { kind: 'rider' } = { kind: 'rider', experience: 'regular', pedal: 'cleat', soleMm: 21 }
  const added: Evidence[] = []
  const of = props('talk', [])
  render(
    <RiderQuestions
      {...of}
      context={{ ...of.context, answeredBefore: { row: before, agoDays: 245 } }}
      actions={{ ...of.actions, onAdd: (row) => added.push(row) }}
    />,
  )
  expect(screen.getByText('8 months ago: regular, cleats, 21 mm sole')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Still so' }))
  expect(added).toEqual([before])
})

test('an answer about health waits for the rider’s yes; other answers do not', () => {
  const added: Evidence[] = []
  const of = props('talk', [])
  const shown = (agrees: boolean, rows = of.rows) => (
    <RiderQuestions
      {...of}
      rows={rows}
      context={{ ...of.context, consent: { ...of.context.consent, agrees } }}
      actions={{ ...of.actions, onAdd: (row) => added.push(row), onReplace: (_, row) => added.push(row) }}
    />
  )
  const { rerender } = render(shown(false))
  fireEvent.click(screen.getByRole('switch', { name: 'Sore back' }))
  expect(added).toEqual([])
  expect(screen.getByText('May we note it?')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Go on without' }))
  fireEvent.click(screen.getByRole('button', { name: 'Regular' }))
  expect(added).toEqual([{ kind: 'rider', experience: 'regular' }])
  fireEvent.click(screen.getByRole('switch', { name: 'Sore back' }))
  fireEvent.click(screen.getByRole('button', { name: 'They agree' }))
  expect(added.at(-1)).toEqual({ kind: 'rider', experience: 'new', backSore: true })
  expect(screen.queryByText('May we note it?')).toBeNull()
  rerender(shown(false, rowsOf({ kind: 'rider', experience: 'new', backSore: true })))
  fireEvent.click(screen.getByRole('switch', { name: 'Pregnant' }))
  expect(added.at(-1)).toMatchObject({ backSore: true, pregnant: true })
})

describe('the sentence of a step', () => {
  test('proposes to talk first, and with pregnancy for the clinician’s word', () => {
    expect(prompt(props('talk', [])).sentence).toMatch(/^Talk first/)
    expect(prompt(props('talk', rowsOf({ kind: 'rider', experience: 'new', pregnant: true }))).sentence).toMatch(
      /clinician/,
    )
  })

  test('beside the bike requests the landmark, and once it is known gives the start', () => {
    expect(prompt(props('beside', [])).sentence).toMatch(/level with the top of the hip bone/)
    expect(prompt(props('beside', [])).small).toMatch(/Ask before touching/)
    expect(
      prompt(props('beside', rowsOf({ kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatHeight: '11' } })))
        .sentence,
    ).toMatch(/^Set the seat at/)
  })

  test('the knee check is proposed until done, then the advice is given; a new setting is due again', () => {
    const look: Evidence = { kind: 'kneeAngle', deg: 44, by: 'goniometer', at }
    expect(prompt(props('knee', [])).sentence).toMatch(/^Set the saddle first/)
    expect(prompt(props('knee', rowsOf({ kind: 'set', at }))).sentence).toMatch(/its farthest\.$/)
    expect(prompt(props('knee', rowsOf({ kind: 'set', at }, look))).sentence).toBe(
      'Stay in the saddle: level the cranks and hang the plumb line too.',
    )
    const plumb: Evidence = { kind: 'plumb', mm: 8, at }
    expect(prompt(props('cranks', rowsOf({ kind: 'set', at }, look, plumb))).sentence).toMatch(/^Raise the seat/)
    expect(prompt(props('cranks', rowsOf({ kind: 'set', at }, look, plumb))).small).toMatch(
      /^Rider off, feet on the floor/,
    )
    expect(
      prompt(props('knee', rowsOf({ kind: 'set', at }, look, { kind: 'set', at: { ...at, seatHeight: '9' } })))
        .sentence,
    ).toMatch(/its farthest\.$/)
  })

  test('at the numbers a change still advised is not hidden', () => {
    const rows = rowsOf(
      { kind: 'set', at },
      { kind: 'kneeAngle', deg: 44, by: 'goniometer', at },
      { kind: 'plumb', mm: 8, at },
    )
    expect(prompt(props('numbers', rows))).toMatchObject({
      sentence: expect.stringMatching(/one change is still advised/),
      small: expect.stringMatching(/^Raise the seat/),
    })
  })

  test('saved numbers are shown as saved', () => {
    expect(prompt(saved(props('knee', []))).sentence).toBe('These numbers are saved.')
  })
})

test('a step shows its cautions beside its card: a clinician first, the wheel slowed, pins closed', () => {
  const rider: Evidence = { kind: 'rider', experience: 'new' }
  const panel = (step: StepPanelProps['step'], check: StepPanelProps['check'], rows: Row[]) =>
    render(<StepPanel {...props(step, rows)} check={check} checks={[check]} />)
  const talk = panel('talk', 'rider', rowsOf(rider))
  expect(screen.getByText(/to a licensed clinician before any fitting/).textContent).toMatch(/^Pain that is sharp/)
  talk.unmount()
  const knee = panel('knee', 'kneeByEye', rowsOf(rider, { kind: 'set', at }))
  expect(screen.getByText(/slow the wheel with the resistance before stopping/).tagName).toBe('P')
  knee.unmount()
  panel('beside', 'landmark', rowsOf(rider, { kind: 'stature', mm: 1700 }))
  expect(screen.getByText(/Close the pins and shake them/).tagName).toBe('P')
})

test('what may be mis-set is stated, with its chance, and one tap takes the looks where the bike truly stood', () => {
  const misSet: MisSetResponse = {
    causes: [
      {
        code: 'offByOne',
        axis: 'seatHeight',
        truly: '9',
        chance: 0.81,
        say: 'the seat height stands at 9, a mark off',
      },
      { code: 'postSlipped', mm: 12, chance: 0.13, say: 'the post has slipped, by about 12 mm' },
      { code: 'asSet', chance: 0.05, say: 'nothing is mis-set' },
      { code: 'otherShoe', mm: 8, chance: 0.01, say: 'other shoes' },
    ],
    sentence: 'The seat height stands at 9.',
  }
  const taken: Marks[] = []
  const rows = rowsOf({ kind: 'set', at }, { kind: 'kneeAngle', deg: 44, by: 'goniometer', at })
  const of = props('knee', rows)
  const shown = { ...of, misSet, actions: { ...of.actions, onTakenAt: (truly: Marks) => taken.push(truly) } }
  const { rerender } = render(<StepPanel {...shown} />)
  expect(screen.getByText('The seat height stands at 9.')).toBeTruthy()
  expect(screen.getByText('81 in 100')).toBeTruthy()
  expect(screen.queryByText('Other shoes')).toBeNull()
  expect(screen.getByRole('link', { name: 'Take the tape', hidden: true }).getAttribute('href')).toBe('/bikes/bike')
  fireEvent.click(screen.getByRole('button', { name: /It stood at 9/, hidden: true }))
  expect(taken).toEqual([{ seatHeight: '9' }])
  // Where all is probably as it was set, nothing is said of it until one asks.
  const calm = { ...misSet, causes: misSet.causes.map((c) => (c.code === 'asSet' ? { ...c, chance: 0.6 } : c)) }
  rerender(<StepPanel {...shown} misSet={calm} />)
  expect(screen.queryByText('The seat height stands at 9.')).toBeNull()
  expect(screen.getByText('Mis-set?')).toBeTruthy()
})

describe('sentence, button and step agree', () => {
  const steps: string[] = []
  const panel = (of: StepPanelProps) =>
    render(<StepPanel {...of} actions={{ ...of.actions, onStep: (step) => steps.push(step) }} />)

  test.each(['saddleFirst', 'heightsFirst'] as const)(
    'after the knee the cranks come in the same mount, before the bars: %s',
    (order) => {
      const rows = rowsOf({ kind: 'set', at }, { kind: 'kneeAngle', deg: 44, by: 'goniometer', at })
      const of = inSchool(props('knee', rows), { order })
      expect(prompt(of).sentence).toMatch(/^Stay in the saddle: level the cranks/)
      panel(of)
      fireEvent.click(screen.getByRole('button', { name: /Next\s*Cranks/ }))
      expect(steps.at(-1)).toBe('cranks')
    },
  )

  test('at the bars the saddle’s slide comes first, and the button leads there', () => {
    const near = { ...at, barSlide: '-3' }
    const rows = rowsOf(
      { kind: 'set', at: near },
      { kind: 'kneeAngle', deg: 30, by: 'goniometer', at: near },
      { kind: 'kneeAngle', deg: 30, by: 'gauge', at: near },
      { kind: 'elbows', seen: 'cramped', at: near },
      { kind: 'clearance', seen: 'clear', at: near },
    )
    const of = props('bars', rows)
    if (of.answer!.bars.decision !== 'plumbFirst') throw new Error(of.answer!.bars.decision)
    expect(prompt(of).sentence).toMatch(/^First the cranks level/)
    expect(prompt(of).small).not.toContain('Rider off')
    panel(of)
    fireEvent.click(screen.getByRole('button', { name: /Next\s*Cranks/ }))
    expect(steps.at(-1)).toBe('cranks')
  })

  test('the hints about the slide and the string follow the school', () => {
    const of = props('bars', rowsOf({ kind: 'set', at }))
    expect(prompt(of).small).toContain('Never cure a bad reach with the saddle’s slide')
    const slideFirst = inSchool(of, { reach: 'slideFirst' })
    expect(prompt(slideFirst).small).not.toContain('Never cure')
    const cranks = inSchool(props('cranks', rowsOf({ kind: 'set', at })), { plumbFrom: 'middle' })
    expect(prompt(cranks).sentence).toContain('from the middle of the kneecap')
  })
})
