'use client'
import { Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useState } from 'react'
import type { Member } from '@/server/riders/members/members'
import { useMemberSearch } from './useMemberSearch'

type Props = Readonly<{
  label: string
  placeholder: string
  className?: string
  /** A member who cannot be chosen. */
  exceptId?: string
  /** Null: the choice was taken away. */
  onPick: (picked: Member | null) => void
}>

/** A member found by a few letters. */
export function MemberSelect({ label, placeholder, className, exceptId, onPick }: Props) {
  const [typed, setTyped] = useState('')
  const [picked, setPicked] = useState<Member | null>(null)
  const { found } = useMemberSearch(typed)
  // The chosen member stays an option, so that the name shows after another search.
  const shown = [...(picked && !found.some(({ id }) => id === picked.id) ? [picked] : []), ...found]
  return (
    <Select
      size="large"
      aria-label={label}
      placeholder={placeholder}
      className={className}
      allowClear
      showSearch={{ filterOption: false, onSearch: setTyped }}
      notFoundContent="Nobody of that name"
      options={shown.filter(({ id }) => id !== exceptId).map(({ id, name }) => ({ value: id, label: name }))}
      onChange={(id?: string) => {
        const member = shown.find((one) => one.id === id) ?? null
        setPicked(member)
        onPick(member)
      }}
    />
  )
}
