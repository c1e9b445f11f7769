'use client'
import { Button, Input, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { formatBodyLength } from '@/core/base/length'
import type { MemberRecord } from '@/server/riders/members/members'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { LengthField } from '../../kit/LengthField'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import styles from './addMember.module.css'

type Props = Readonly<{ member: MemberRecord; seesBody: boolean; close: () => void }>

/** Name, member number, e-mail and height of a member. Typed text stays until it is saved. */
export function EditMember({ member, seesBody, close }: Props) {
  const router = useRouter()
  const { shown } = useUnitSystem()
  const { act, busy } = useAction()
  const height = member.statureMm === null ? '' : formatBodyLength(member.statureMm, shown)
  const [typed, setTyped] = useState({
    name: member.name,
    number: member.number ?? '',
    email: member.email ?? '',
    height,
  })
  const set = (field: keyof typeof typed) => (text: string) => setTyped((all) => ({ ...all, [field]: text }))
  async function save() {
    const { height: heightTyped, ...texts } = typed
    // A height nobody touched goes back as it came: shown in inches it would be rounded.
    const sent = { ...texts, ...(heightTyped !== height && { height: heightTyped }) }
    if (!(await act(() => command('members.changeMember', { from: member, typed: sent })))) return
    close()
    router.refresh()
  }
  return (
    <Modal open onCancel={close} footer={null} title="Edit member" width={440}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <Text title="Name" value={typed.name} set={set('name')} maxLength={120} />
        <Text title="Member number" value={typed.number} set={set('number')} maxLength={40} />
        <Text title="E-mail" value={typed.email} set={set('email')} maxLength={254} />
        {seesBody && (
          <LengthField
            title="Height, without shoes"
            typed={typed.height}
            placeholder={shown === 'imperial' ? '5′6″' : '168 cm'}
            onTyped={set('height')}
          />
        )}
        <Button
          className={styles.send}
          type="primary"
          size="large"
          htmlType="submit"
          loading={busy}
          disabled={typed.name.trim() === ''}
          block
        >
          Save
        </Button>
      </form>
    </Modal>
  )
}

function Text({
  title,
  value,
  set,
  maxLength,
}: Readonly<{ title: string; value: string; set: (text: string) => void; maxLength: number }>) {
  return (
    <label>
      {title}
      <Input
        size="large"
        autoComplete="off"
        maxLength={maxLength}
        value={value}
        onChange={(event) => set(event.target.value)}
      />
    </label>
  )
}
