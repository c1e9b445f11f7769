'use client'
import { App, Button, Modal, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { formatMerge } from '@/core/messages/riders/members'
import type { MergePreview } from '@/server/commands/useCases/mergeMembers'
import { findMembers } from './findMembers'
import { useAction } from '../../commands/useAction'
import { query, command } from '../../commands/command'
import styles from './addMember.module.css'

type Member = Readonly<{ id: string; name: string }>
/** Pause in typing before the search request, ms. */
const PAUSE_MS = 150

/** Merges this member, entered twice, into another: first what it would move, then the tap that does it. */
export function MergeMember({ member, close }: Readonly<{ member: Member; close: () => void }>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const [found, setFound] = useState<readonly Member[]>([])
  const [preview, setPreview] = useState<MergePreview | null>(null)
  const search = (typed: string) => {
    clearTimeout(timer.current)
    timer.current = setTimeout(() => {
      void findMembers(typed)
        .then((members) => setFound(members.filter(({ id }) => id !== member.id)))
        .catch(() => setFound([]))
    }, PAUSE_MS)
  }
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
        <label htmlFor="merge-into">Who is it really?</label>
        <Select
          id="merge-into"
          size="large"
          showSearch={{ filterOption: false, onSearch: search }}
          placeholder="Find by name"
          notFoundContent={null}
          onFocus={() => search('')}
          options={found.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={choose}
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
