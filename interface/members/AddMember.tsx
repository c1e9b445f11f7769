'use client'
import { Alert, Button, Input, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { addMember, renameMember, type MemberResult } from './actions'
import styles from './addMember.module.css'

/** A name is all a member needs; the rest is seen at the bike. */
export function AddMember({ open, typed, close }: { open: boolean; typed: string; close: () => void }) {
  return (
    <Modal open={open} onCancel={close} footer={null} title="Add a member" destroyOnHidden width={440}>
      <NameForm first={typed} />
    </Modal>
  )
}

type Refused = Extract<MemberResult, { outcome: 'refused' }>

function NameForm({ first }: { first: string }) {
  const router = useRouter()
  const [id] = useState(() => crypto.randomUUID())
  const [name, setName] = useState(first)
  const [refusal, setRefusal] = useState<Refused | null>(null)
  const [busy, setBusy] = useState(false)

  async function send(work: () => Promise<MemberResult>) {
    setBusy(true)
    try {
      const answer = await work()
      if (answer.outcome === 'kept') return router.push(`/riders/${answer.id}`)
      setRefusal(answer)
    } catch {
      setRefusal({
        outcome: 'refused',
        say: 'The studio’s server cannot be reached. The name is still here; try again.',
      })
    }
    setBusy(false)
  }
  const save = (anyway: boolean) => send(() => addMember(id, name, anyway))

  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault()
        save(false)
      }}
    >
      <label htmlFor="member-name">Name</label>
      <Input
        id="member-name"
        size="large"
        autoFocus
        autoComplete="off"
        value={name}
        onChange={(e) => {
          setName(e.target.value)
          setRefusal(null)
        }}
      />
      <div className={styles.said} aria-live="polite">
        {refusal && (
          <Alert
            type="warning"
            title={refusal.say}
            action={
              refusal.offer === 'addAnyway' ? (
                <Button onClick={() => save(true)}>Add</Button>
              ) : refusal.offer === 'correct' ? (
                <Button onClick={() => send(() => renameMember(id, refusal.as ?? '', name))}>Correct it</Button>
              ) : undefined
            }
          />
        )}
      </div>
      <Button type="primary" size="large" htmlType="submit" loading={busy} block>
        Add
      </Button>
    </form>
  )
}
