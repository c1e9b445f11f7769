import { fireEvent, render } from '@testing-library/react'
import { useRef } from 'react'
import { useKeyboardWay } from './useKeyboardWay'

type Props = Readonly<{ step: string; answers: number; working: boolean }>

function Step(props: Props) {
  const root = useRef<HTMLDivElement>(null)
  useKeyboardWay(root, props)
  return (
    <div ref={root}>
      <div data-question="">
        <button>first of {props.step}</button>
      </div>
      <button data-forward="">forward</button>
    </div>
  )
}
const focused = () => document.activeElement?.textContent

test('focuses the forward button after an answer, and the first answer of a new step', () => {
  const { rerender } = render(<Step step="beside" answers={0} working={false} />)
  fireEvent.keyDown(document.body, { key: 'Tab' })
  rerender(<Step step="beside" answers={1} working />)
  expect(focused()).not.toBe('forward')
  rerender(<Step step="beside" answers={1} working={false} />)
  expect(focused()).toBe('forward')

  // The way on adds a row and opens the next step; its answer comes later and must not take the focus away again.
  rerender(<Step step="knee" answers={2} working />)
  expect(focused()).toBe('first of knee')
  rerender(<Step step="knee" answers={2} working={false} />)
  expect(focused()).toBe('first of knee')
})

test('after a tap the focus stays where it is', () => {
  const { rerender } = render(<Step step="beside" answers={0} working={false} />)
  fireEvent.pointerDown(document.body)
  rerender(<Step step="knee" answers={1} working={false} />)
  expect(focused()).not.toBe('first of knee')
  expect(focused()).not.toBe('forward')
})
