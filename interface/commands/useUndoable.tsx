'use client'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useAction, type Answer } from './useAction'

/** Time to take a change back, s. */
const UNDO_S = 7

type Change = Readonly<{
  action: () => Promise<Answer>
  /** Text of the message. */
  done: string
  undo: () => Promise<Answer>
}>

/**
 * Sends a command, fetches the page's data again, and shows a message with Undo for some seconds. Resolves with whether
 * the command was taken.
 */
export function useUndoable() {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  async function change({ action, done, undo }: Change): Promise<boolean> {
    if (!(await act(action))) return false
    router.refresh()
    const takeBack = () => void act(undo).then((answer) => answer && router.refresh())
    message.success(
      <>
        {done}
        <Button type="link" onClick={takeBack}>
          Undo
        </Button>
      </>,
      UNDO_S,
    )
    return true
  }
  return { change, busy }
}
