'use client'
import { Button, type ButtonProps } from 'antd'
import { useRouter } from 'next/navigation'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'

type Props = ButtonProps & Readonly<{ classId: string; memberId: string; bikeId: string }>

/** Begins the set-up of a rider on a bike, or opens the one that is open, and comes back to the class after it. */
export function SetUpButton({ classId, memberId, bikeId, children = 'Set up', ...props }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  const open = async () => {
    const started = await act(() => command('setups.startSetup', { memberId, bikeId }))
    if (started) router.push(`/set-up/${started.setupId}?class=${classId}`)
  }
  return (
    <Button size="large" loading={busy} onClick={open} {...props}>
      {children}
    </Button>
  )
}
