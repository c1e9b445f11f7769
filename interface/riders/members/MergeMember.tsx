'use client'
import { App, Button, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { formatMerge } from '@/core/messages/riders/members'
import type { MergePreview } from '@/server/commands/useCases/mergeMembers'
import { MemberSelect } from './MemberSelect'
import { useAction } from '../../commands/useAction'
import { query, command } from '../../commands/command'
import styles from './addMember.module.css'

type Member = Readonly<{ id: string; name: string }>

/** Merges this member, entered twice, into another: first what it would move, then the tap that does it. */
export function MergeMember({ member, close }: Readonly<{ member: Member; close: () => void }>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [preview, setPreview] = useState<MergePreview | null>(null)
  async function choose(into: string) {
    setPreview(null)
    const answer = await act(() => query('members.previewMerge', { from: member.id, into }))
    if (answer) setPreview(answer.preview)
  }
  async function merge({ into }: MergePreview) {
    if (!(await act(() => command('members.mergeMembers', { from: member.id, into: into.id })))) return
    message.success(`${member.name} is ${into.name} now.`, 5)
    router.push(`/riders/${into.id}`)
  }
  return (
    <Modal open onCancel={close} footer={null} title={`Merge ${member.name} into another member`} width={480}>
      <div className={styles.form}>
        <b>Who is it really?</b>
        <MemberSelect
          label="Who is it really?"
          placeholder="Find by name"
          exceptId={member.id}
          onPick={(into) => (into ? void choose(into.id) : setPreview(null))}
        />
        <div className={styles.said} aria-live="polite">
          {preview && formatMerge(preview).map((line) => <p key={line}>{line}</p>)}
        </div>
        <Button
          danger
          type="primary"
          size="large"
          block
          disabled={!preview}
          loading={busy}
          onClick={() => preview && merge(preview)}
        >
          {preview ? `Merge into ${preview.into.name}` : 'Choose the member first'}
        </Button>
      </div>
    </Modal>
  )
}
