'use client'
import { Drawer, Input } from 'antd'
import { useEffect, useState, type ReactNode } from 'react'
import { findMembers } from '../members/actions'
import styles from './riderPicker.module.css'

type Props = Readonly<{
  /** What is asked; null: closed. */
  title: string | null
  /** What is said beside a name: "bike 7". */
  remarkOf?: (memberId: string) => string | null
  close: () => void
  onPick: (memberId: string, name: string) => void
  children?: ReactNode
}>

/** A member by a few letters and a tap. */
export function RiderPicker({ title, remarkOf, close, onPick, children }: Props) {
  const [typed, setTyped] = useState('')
  const { found, failed } = useMemberSearch(title !== null, typed)
  const shown = found ?? []
  const first = async () => {
    const [member] = await findMembers(typed).catch(() => [])
    if (member) onPick(member.id, member.name)
  }
  return (
    <Drawer open={title !== null} onClose={close} title={title ?? ''} size={420} destroyOnHidden>
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
      {children}
      <ul className={styles.names}>
        {shown.map((member) => (
          <li key={member.id}>
            <button type="button" onClick={() => onPick(member.id, member.name)}>
              {member.name}
              {remarkOf?.(member.id) && <span>{remarkOf(member.id)}</span>}
            </button>
          </li>
        ))}
      </ul>
      {failed && <p className={styles.none}>The studio’s server cannot be reached. Type again when it is back.</p>}
      {found?.length === 0 && !failed && (
        <p className={styles.none}>Nobody of that name. Add them on the members’ page first.</p>
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
