import { App } from 'antd'
import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState } from 'react'
import type { Marks } from '@/core/base/conventions'
import { asSentence } from '@/core/messages/refusals'
import type { Recommendation } from '@/core/operations/requests/recommend'
import { starterPlan } from '@/core/setups/recommend/steps/starter'
import type { Purpose } from '@/core/setups/register/entry'
import { command } from '../commands/command'
import { useOutbox } from '../offline/OutboxProvider'
import { latestRow, type Row } from './steps/flow'
import type { SetupRows } from './rows/useSetupRows'

/** Saving a set-up's numbers, or starting a new one from its rows; both leave the page. */
export function useFinish(setupId: string, rows: readonly Row[], save: SetupRows['save'], back: string) {
  const router = useRouter()
  const { message } = App.useApp()
  const { settled } = useOutbox()
  const [purpose, setPurpose] = useState<Purpose>('usual')
  const [saving, setSaving] = useState(false)
  const [moving, setMoving] = useState(false)
  const isOpen = useRef(true)
  useEffect(() => {
    isOpen.current = true
    return () => void (isOpen.current = false)
  }, [])

  async function finish(marks: Marks, answer: Recommendation | null) {
    setSaving(true)
    const id = crypto.randomUUID()
    await save(id, marks, purpose, answer ? starterPlan(answer, marks.seatHeight, isStarter(rows, purpose)) : undefined)
    const end = await settled(id)
    if (!isOpen.current) return
    if (end === 'sent') return router.push(back)
    setSaving(false)
  }

  async function goOn() {
    setMoving(true)
    try {
      const started = await command('setups.continueSetup', {
        setupId,
        rows: rows.map(({ row }) => ({ id: crypto.randomUUID(), row })),
      })
      if (started.outcome === 'kept') return router.push(`/set-up/${started.setupId}`)
      message.error(asSentence(started.say), 6)
    } catch {
      message.error('The studio’s server cannot be reached. Everything is still here; try again.', 6)
    }
    setMoving(false)
  }

  return { purpose, setPurpose, saving, moving, finish, goOn }
}

/** Whether the numbers are low to begin with: by their purpose, or as what was set on purpose. */
const isStarter = (rows: readonly Row[], purpose: Purpose): boolean => {
  const set = latestRow(rows, 'set')?.row
  return purpose === 'starter' || (set?.kind === 'set' && set.meant === 'starter')
}
