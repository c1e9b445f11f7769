'use client'
import { Alert, Button, Input, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { add } from './actions'
import styles from './members.module.css'

/** A name is all a member needs; the rest is seen at the bike. */
export function AddMember({ open, typed, close }: { open: boolean; typed: string; close: () => void }) {
  return (
    <Modal open={open} onCancel={close} footer={null} title="Add a member" destroyOnHidden width={440}>
      <NameForm first={typed} />
    </Modal>
  )
}

function NameForm({ first }: { first: string }) {
  const router = useRouter()
  const [id] = useState(() => crypto.randomUUID())
  const [name, setName] = useState(first)
  const [said, setSaid] = useState<{ say: string; sameName: boolean } | null>(null)
  const [busy, setBusy] = useState(false)

  async function save(anyway: boolean) {
    setBusy(true)
    try {
      const answer = await add(id, name, anyway)
      if (answer.outcome === 'added') return router.push(`/riders/${answer.id}`)
      setSaid({ say: answer.say, sameName: answer.outcome === 'sameName' })
    } catch {
      setSaid({ say: 'The studio’s server cannot be reached. The name is still here; try again.', sameName: false })
    }
    setBusy(false)
  }

  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault()
        save(false)
      }}
    >
      <label htmlFor="member-name">Name</label>
      <Input id="member-name" size="large" autoFocus autoComplete="off" value={name} onChange={(e) => (setName(e.target.value), setSaid(null))} />
      <div className={styles.said} aria-live="polite">
        {said && <Alert type="warning" title={said.say} action={said.sameName && <Button onClick={() => save(true)}>Add</Button>} />}
      </div>
      <Button type="primary" size="large" htmlType="submit" loading={busy} block>
        Add
      </Button>
    </form>
  )
}
