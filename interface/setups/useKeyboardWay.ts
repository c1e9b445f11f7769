'use client'
import { useEffect, useRef, type RefObject } from 'react'

/** What takes the focus when a step opens: its first answer, or the marks of the scale it needs. */
const FIRST_ANSWER = [
  '[data-asking] [data-focus]',
  '[data-question] button:not(:disabled)',
  '[data-question] input',
  '[data-forward]',
]

const TEXT_FIELD = 'input:not([type=range]), textarea'

/**
 * Leads the keyboard through a set-up: a new step puts the focus on its first answer, an answer puts it on the one
 * button that goes on. Leaves the focus alone after a tap, and in a text field: the answer may be another device's.
 */
export function useKeyboardWay(
  root: RefObject<HTMLElement | null>,
  { step, answers, working }: Readonly<{ step: string; answers: number; working: boolean }>,
): void {
  const byKeys = useRef(false)
  useEffect(() => {
    const keys = (event: KeyboardEvent) => void (byKeys.current = !event.metaKey && !event.ctrlKey && !event.altKey)
    const pointer = () => void (byKeys.current = false)
    window.addEventListener('keydown', keys, true)
    window.addEventListener('pointerdown', pointer, true)
    return () => {
      window.removeEventListener('keydown', keys, true)
      window.removeEventListener('pointerdown', pointer, true)
    }
  }, [])

  const opened = useRef<string | null>(null)
  const answered = useRef(answers)
  useEffect(() => {
    if (step !== opened.current) {
      opened.current = step
      // What led here is no answer of this step: its late result must not move the focus.
      answered.current = answers
      if (byKeys.current) firstAnswer(root.current)?.focus()
      return
    }
    if (working || answers === answered.current) return
    answered.current = answers
    if (byKeys.current && !document.activeElement?.matches(TEXT_FIELD))
      root.current?.querySelector<HTMLElement>('[data-forward]')?.focus()
  }, [root, step, answers, working])
}

function firstAnswer(root: HTMLElement | null): HTMLElement | null {
  for (const selector of FIRST_ANSWER) {
    const found = root?.querySelector<HTMLElement>(selector)
    if (found) return found
  }
  return null
}
