import { Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useEffect, useRef, useState } from 'react'
import { findMembers } from '../riders/members/findMembers'
import styles from './studioView.module.css'

/** A member found by a few letters. */
export function RiderSelect({ onPick }: { onPick: (picked: { id: string; name: string } | null) => void }) {
  const [found, setFound] = useState<readonly { id: string; name: string }[]>([])
  const [typed, setTyped] = useState('')
  const latest = useRef(0)
  useEffect(() => {
    const now = ++latest.current
    findMembers(typed)
      .then((members) => {
        if (latest.current === now) setFound(members)
      })
      .catch(() => undefined)
  }, [typed])
  return (
    <Select
      size="large"
      aria-label="Rider"
      placeholder="For a rider …"
      className={styles.rider}
      allowClear
      showSearch={{ filterOption: false, onSearch: setTyped }}
      notFoundContent="Nobody of that name"
      options={found.map((m) => ({ value: m.id, label: m.name }))}
      onChange={(id?: string) => onPick(found.find((m) => m.id === id) ?? null)}
    />
  )
}
