'use client'
import { Button, Drawer, Input } from 'antd'
import { useState } from 'react'
import { matches } from '../members/search'
import type { FloorBike } from './floorTypes'
import styles from './floor.module.css'

type Props = Readonly<{
  bike: FloorBike | null
  members: readonly { id: string; name: string }[]
  seated: ReadonlySet<string>
  close: () => void
  onSit: (bikeId: string, memberId: string | null) => void
}>

/** Who sits on this bike: a few letters and a tap. */
export function WhoSheet({ bike, members, seated, close, onSit }: Props) {
  const [typed, setTyped] = useState('')
  const shown = members.filter((m) => matches(m.name, typed))
  return (
    <Drawer open={bike !== null} onClose={close} title={bike ? `Who sits on bike ${bike.number}?` : ''} size={420} destroyOnHidden>
      {bike && (
        <>
          <Input size="large" autoFocus placeholder="Find by name" aria-label="Find by name" value={typed} onChange={(e) => setTyped(e.target.value)} onPressEnter={() => shown[0] && onSit(bike.id, shown[0].id)} allowClear />
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
          {shown.length === 0 && <p className={styles.none}>Nobody of that name. Add them on the members’ page first.</p>}
        </>
      )}
    </Drawer>
  )
}
