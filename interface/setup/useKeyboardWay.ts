'use client'
import { useEffect, useRef, type RefObject } from 'react'

/** What takes the focus when a step opens: its first answer, or the marks of the scale it asks for. */
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

  useEffect(() => {
    if (!byKeys.current) return
    for (const selector of FIRST_ANSWER) {
      const found = root.current?.querySelector<HTMLElement>(selector)
      if (!found) continue
      found.focus()
      return
    }
  }, [root, step])

  const answered = useRef(answers)
  useEffect(() => {
    if (working || answers === answered.current) return
    answered.current = answers
    if (byKeys.current && !document.activeElement?.matches(TEXT_FIELD))
      root.current?.querySelector<HTMLElement>('[data-forward]')?.focus()
  }, [root, answers, working])
}
