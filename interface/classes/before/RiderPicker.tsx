'use client'
import { Button, Drawer, Input, type InputRef } from 'antd'
import '@/interface/kit/antd/drawer.generated.css'
import { useRef, useState } from 'react'
import { normalizeName } from '@/server/riders/members/normalizeName'
import { findMembers } from '../../riders/members/findMembers'
import { useMemberSearch } from '../../riders/members/useMemberSearch'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import styles from './riderPicker.module.css'

type Props = Readonly<{
  /** The title; null: closed. */
  title: string | null
  /** The remark next to a name: "bike 7". */
  remarkOf?: (memberId: string) => string | null
  /** Typed already as it opens. */
  begins?: string
  close: () => void
  onPick: (memberId: string, name: string) => void
  /** What adding the typed name also does: "and give a bike". */
  addLabel: string
  /** The picker stays open for the next name. */
  stays?: boolean
}>

/** A member by a few letters and a tap; a name that nobody has is added by one more. */
export function RiderPicker({ title, remarkOf, begins = '', close, onPick, addLabel, stays = false }: Props) {
  const [typed, setTyped] = useState(begins)
  const field = useRef<InputRef>(null)
  const { found, isFresh, failed } = useMemberSearch(typed, title !== null)
  const pick = (memberId: string, name: string) => {
    onPick(memberId, name)
    if (!stays) return
    setTyped('')
    field.current?.focus()
  }
  const first = async () => {
    const [member] = await findMembers(typed).catch(() => [])
    if (member) pick(member.id, member.name)
  }
  return (
    <Drawer open={title !== null} onClose={close} title={title ?? ''} size={420} destroyOnHidden>
      <Input
        ref={field}
        size="large"
        autoFocus
        placeholder="Find by name"
        aria-label="Find by name"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onPressEnter={first}
        allowClear
      />
      <ul className={styles.names}>
        {found.map((member) => (
          <li key={member.id}>
            <button type="button" onClick={() => pick(member.id, member.name)}>
              {member.name}
              {remarkOf?.(member.id) && <span>{remarkOf(member.id)} ✓</span>}
            </button>
          </li>
        ))}
      </ul>
      {failed && <p className={styles.none}>The studio’s server cannot be reached. Type again when it is back.</p>}
      {isFresh && !failed && normalizeName(typed) !== '' && (
        <NewName
          key={normalizeName(typed)}
          name={normalizeName(typed)}
          label={addLabel}
          isTaken={found.some(({ name }) => name.toLowerCase() === normalizeName(typed).toLowerCase())}
          onAdded={pick}
        />
      )}
      {isFresh && found.length === 0 && typed.trim() === '' && !failed && (
        <p className={styles.none}>There are no members yet. Type a name to add the first.</p>
      )}
    </Drawer>
  )
}

/** Adds the typed name as a new member and picks it. A name that somebody has already takes a second tap. */
function NewName({
  name,
  label,
  isTaken,
  onAdded,
}: Readonly<{ name: string; label: string; isTaken: boolean; onAdded: (memberId: string, name: string) => void }>) {
  const [id] = useState(() => crypto.randomUUID())
  const [anyway, setAnyway] = useState(false)
  const { act, busy } = useAction()
  const add = async () => {
    if (isTaken && !anyway) return setAnyway(true)
    const done = await act(async () => {
      const answer = await command('members.addMember', { typed: name, anyway }, id)
      if (answer.outcome === 'refused' && answer.code === 'sameName') setAnyway(true)
      return answer
    })
    if (done) onAdded(id, name)
  }
  return (
    <Button
      size="large"
      block
      loading={busy}
      type={isTaken ? 'default' : 'primary'}
      className={styles.add}
      onClick={add}
    >
      {anyway ? `Yes, add a second “${name}”` : `Add “${name}” ${label}`}
    </Button>
  )
}
