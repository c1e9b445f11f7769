'use client'
import { Alert, Button, Input, Modal } from 'antd'
import '@/interface/kit/antd/alert.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { asSentence } from '@/core/messages/refusals'
import type { Refused } from '@/server/commands/registry'
import { command, type CommandAnswer } from '../../commands/command'
import styles from './addMember.module.css'

/** A name is all a member needs; the rest is seen at the bike. */
export function AddMember({ open, typed, close }: { open: boolean; typed: string; close: () => void }) {
  return (
    <Modal open={open} onCancel={close} footer={null} title="Add a member" destroyOnHidden width={440}>
      <NameForm first={typed} />
    </Modal>
  )
}

type Answer = CommandAnswer<'members.addMember' | 'members.renameMember'>

const UNREACHABLE = 'The studio’s server cannot be reached. The name is still here; try again.'

function NameForm({ first }: { first: string }) {
  const router = useRouter()
  const [id] = useState(() => crypto.randomUUID())
  const [name, setName] = useState(first)
  const [refusal, setRefusal] = useState<Refused | 'unreachable' | null>(null)
  const [busy, setBusy] = useState(false)

  async function send(work: () => Promise<Answer>) {
    setBusy(true)
    try {
      const answer = await work()
      if (answer.outcome === 'kept') return router.push(`/riders/${answer.memberId}`)
      setRefusal(answer)
    } catch {
      setRefusal('unreachable')
    }
    setBusy(false)
  }
  const save = (anyway: boolean) => send(() => command('members.addMember', { typed: name, anyway }, id))

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
            title={refusal === 'unreachable' ? UNREACHABLE : asSentence(refusal.say)}
            action={
              refusal === 'unreachable' ? undefined : refusal.code === 'sameName' ? (
                <Button onClick={() => save(true)}>Add</Button>
              ) : refusal.code === 'addedBefore' ? (
                <Button
                  onClick={() =>
                    send(() => command('members.renameMember', { memberId: id, from: refusal.as, typed: name }))
                  }
                >
                  Correct it
                </Button>
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
