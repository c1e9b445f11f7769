import { fireEvent, render, screen } from '@testing-library/react'
import { Scale, type DrawnMark } from './Scale'

beforeAll(() => {
  Element.prototype.scrollTo = () => undefined
})

const marks: DrawnMark[] = [
  { label: '8', text: '8', set: true, isTarget: false, chance: 0.12 },
  { label: '7', text: '7', set: false, isTarget: true, chance: 0.81 },
  { label: '6.5', text: '6½', set: false, isTarget: false, chance: 0.001 },
]
const draw = (onTap?: (label: string) => void) =>
  render(<Scale title="Seat height" way="upright" marks={marks} remark="" drawnAs="holes" onTap={onTap} />)

test('each mark announces where it is set, what is wanted and how likely it is right', () => {
  draw(() => undefined)
  expect(screen.getByRole('button', { name: 'Seat height 8, set here, chance 12 of 100' })).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Seat height 7, wanted next, chance 81 of 100' })).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Seat height 6½, chance 0 of 100' })).toBeTruthy()
})

test('a tap reports the label as the bike spells it', () => {
  const tapped: string[] = []
  draw((label) => tapped.push(label))
  fireEvent.click(screen.getByRole('button', { name: /6½/ }))
  expect(tapped).toEqual(['6.5'])
})

test('after a tap the scale stays where it is, and the mark keeps a flag', () => {
  const scrolled = jest.spyOn(Element.prototype, 'scrollTo')
  const scale = (flag?: string) => (
    <Scale
      title="Seat height"
      way="upright"
      marks={marks.map((mark) =>
        flag && mark.label === '6.5'
          ? { ...mark, flag }
          : { ...mark, isTarget: flag !== undefined && mark.label === '8' },
      )}
      remark=""
      drawnAs="holes"
      onTap={() => undefined}
    />
  )
  const { rerender } = render(scale())
  const before = scrolled.mock.calls.length
  expect(before).toBeGreaterThan(0)
  fireEvent.click(screen.getByRole('button', { name: /6½/ }))
  // The answer wants another mark now: without the tap the scale would be centred on it.
  rerender(scale('hip crest here'))
  expect(scrolled.mock.calls.length).toBe(before)
  expect(screen.getByRole('button', { name: /^Seat height 6½, hip crest here/ })).toBeTruthy()
})

test('arrow keys walk along the scale and stop at its ends; one mark is in the tab order', () => {
  draw(() => undefined)
  const buttons = screen.getAllByRole('button')
  expect(buttons.filter((b) => b.tabIndex === 0)).toEqual([buttons[1]])
  buttons[1].focus()
  fireEvent.keyDown(buttons[1], { key: 'ArrowDown' })
  expect(document.activeElement).toBe(buttons[2])
  fireEvent.keyDown(buttons[2], { key: 'ArrowDown' })
  expect(document.activeElement).toBe(buttons[2])
  fireEvent.keyDown(buttons[2], { key: 'ArrowUp' })
  expect(document.activeElement).toBe(buttons[1])
})

test('a scale that may not be tapped is only read', () => {
  draw()
  for (const button of screen.getAllByRole('button')) expect((button as HTMLButtonElement).disabled).toBe(true)
})

test('small chances are not written as numbers', () => {
  const { container } = draw(() => undefined)
  expect([...container.querySelectorAll('em')].map((e) => e.textContent)).toEqual(['12', '81'])
})
