'use client'
import { App, Button, Input, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { MemberDataPage } from '@/server/pages/riders/memberData'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import styles from './memberData.module.css'

type Props = Pick<MemberDataPage, 'memberId' | 'name' | 'parts'> & Readonly<{ close: () => void }>

/** Erases a member for good, once the name is typed as it is written. */
export function EraseMember({ memberId, name, parts, close }: Props) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [typed, setTyped] = useState('')
  const isSame = typed.trim() === name
  async function erase() {
    if (!isSame || !(await act(() => command('members.eraseMember', { memberId, name: typed })))) return
    message.success('Erased.', 5)
    router.push('/members')
  }
  const counts = parts.map(({ title, lines }) => `${title.toLowerCase()} ${lines.length}`).join(' · ')
  return (
    <Modal open onCancel={close} footer={null} title={`Erase ${name}`} width={480}>
      <form
        className={styles.erase}
        onSubmit={(event) => {
          event.preventDefault()
          void erase()
        }}
      >
        <p>Everything on this page goes, for good: {counts}.</p>
        <p>
          Backups made before still hold it until they are rotated out, after twelve months at most; a restore of one
          erases it again. Take the PDF first if the member wants it.
        </p>
        <label>
          <b>Type the name to erase it</b>
          <Input
            size="large"
            value={typed}
            autoComplete="off"
            onChange={(event) => setTyped(event.target.value)}
            placeholder={name}
          />
        </label>
        <Button danger type="primary" size="large" block htmlType="submit" disabled={!isSame} loading={busy}>
          Erase for good
        </Button>
      </form>
    </Modal>
  )
}
