'use client'
import { Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import parts from '../parts.module.css'
import styles from './bikesView.module.css'

type Props = Readonly<{
  bikes: readonly Readonly<{ id: string; number: number; type: string; when: string }>[]
  mayManage: boolean
}>

/** Bikes that are in use no more: what was recorded on them stays, and each can come back. */
export function RetiredBikes({ bikes, mayManage }: Props) {
  const router = useRouter()
  const { act, busy } = useAction()
  if (bikes.length === 0) return null
  return (
    <section className={parts.part}>
      <h2>Retired</h2>
      <ul className={styles.retired}>
        {bikes.map(({ id, number, type, when }) => (
          <li key={id}>
            <span>
              <b>{number}</b> {type}, retired {when}
            </span>
            {mayManage && (
              <Button
                disabled={busy}
                onClick={async () => {
                  if (await act(() => command('bikes.returnMachine', { bikeId: id }))) router.refresh()
                }}
              >
                Back into use
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
