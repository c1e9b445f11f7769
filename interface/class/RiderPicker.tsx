'use client'
import { Button, Drawer, Input } from 'antd'
import { useEffect, useState } from 'react'
import { findMembers } from '../members/actions'
import type { ClassBike } from './classTypes'
import styles from './riderPicker.module.css'

type Props = Readonly<{
  bike: ClassBike | null
  /** Whether the rider's page is a tap away here; else it is from the note. */
  linked: boolean
  seated: ReadonlySet<string>
  close: () => void
  onSit: (bikeId: string, memberId: string | null) => void
}>

/** Who sits on this bike: a few letters and a tap. */
export function RiderPicker({ bike, linked, seated, close, onSit }: Props) {
  const [typed, setTyped] = useState('')
  const { found, failed } = useMemberSearch(bike !== null, typed)
  const shown = found ?? []
  const first = async () => {
    const [member] = await findMembers(typed).catch(() => [])
    if (bike && member) onSit(bike.id, member.id)
  }
  return (
    <Drawer
      open={bike !== null}
      onClose={close}
      title={bike ? `Who sits on bike ${bike.number}?` : ''}
      size={420}
      destroyOnHidden
    >
      {bike && (
        <>
          <Input
            size="large"
            autoFocus
            placeholder="Find by name"
            aria-label="Find by name"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onPressEnter={first}
            allowClear
          />
          {bike.rider && linked && (
            <Button size="large" block className={styles.clear} href={`/riders/${bike.rider.id}`}>
              Numbers of {bike.rider.name}
            </Button>
          )}
          {bike.rider && (
            <Button size="large" block className={styles.clear} onClick={() => onSit(bike.id, null)}>
              Nobody: free this bike
            </Button>
          )}
          <ul className={styles.names}>
            {shown.map((member) => (
              <li key={member.id}>
                <button type="button" onClick={() => onSit(bike.id, member.id)}>
                  {member.name}
                  {seated.has(member.id) && <span>{bike.rider?.id === member.id ? 'here' : 'moves here'}</span>}
                </button>
              </li>
            ))}
          </ul>
          {failed && <p className={styles.none}>The studio’s server cannot be reached. Type again when it is back.</p>}
          {found?.length === 0 && !failed && (
            <p className={styles.none}>Nobody of that name. Add them on the members’ page first.</p>
          )}
        </>
      )}
    </Drawer>
  )
}

/** A hand that types goes on within this; then the server is asked. */
const PAUSE_MS = 150

/**
 * The members found for what is typed; null before the first answer. The latest question counts, whichever answer
 * comes last.
 */
function useMemberSearch(
  open: boolean,
  typed: string,
): { found: readonly { id: string; name: string }[] | null; failed: boolean } {
  const [state, setState] = useState<{ found: readonly { id: string; name: string }[] | null; failed: boolean }>({
    found: null,
    failed: false,
  })
  useEffect(() => {
    if (!open) return
    let stale = false
    const timer = setTimeout(() => {
      findMembers(typed)
        .then((found) => stale || setState({ found, failed: false }))
        .catch(() => stale || setState({ found: [], failed: true }))
    }, PAUSE_MS)
    return () => {
      stale = true
      clearTimeout(timer)
    }
  }, [open, typed])
  return state
}
