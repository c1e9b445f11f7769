'use client'
import { PlusOutlined, SearchOutlined } from '@ant-design/icons'
import { Button, Input, type InputRef } from 'antd'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState } from 'react'
import { AddMember } from './AddMember'
import styles from './members.module.css'
import { matches } from './search'

export type MemberRow = Readonly<{
  id: string
  name: string
  openSetupId: string | null
  numbers: Readonly<{ line: string; bike: string; date: string }> | null
}>

/** Everyone of the studio: `/` searches, Enter opens the first, those without numbers are marked. */
export function Members({ members }: { members: MemberRow[] }) {
  const router = useRouter()
  const search = useRef<InputRef>(null)
  const [typed, setTyped] = useState('')
  const [only, setOnly] = useState(false)
  const [adding, setAdding] = useState(false)
  const without = members.filter((m) => !m.numbers).length
  const shown = members.filter((m) => matches(m.name, typed) && (!only || !m.numbers))

  useEffect(() => {
    const slash = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLElement && event.target.closest('input, textarea')
      if (event.key !== '/' || inField) return
      event.preventDefault()
      search.current?.focus()
    }
    window.addEventListener('keydown', slash)
    return () => window.removeEventListener('keydown', slash)
  }, [])

  return (
    <>
      <div className={styles.head}>
        <h1>Members</h1>
        <Input
          ref={search}
          className={styles.search}
          size="large"
          prefix={<SearchOutlined />}
          suffix={<kbd className={styles.key}>/</kbd>}
          placeholder="Find by name"
          aria-label="Find by name"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onPressEnter={() => shown[0] && router.push(`/riders/${shown[0].id}`)}
          allowClear
        />
        <Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => setAdding(true)}>
          Add a member
        </Button>
      </div>
      <button type="button" className={only ? styles.filterOn : styles.filter} aria-pressed={only} onClick={() => setOnly(!only)}>
        {without} without numbers
      </button>
      {shown.length === 0 ? (
        <p className={styles.empty}>
          {members.length === 0 ? 'No members yet. Add the first one; a set-up takes six minutes.' : `Nobody here is called “${typed}”. `}
          {typed && <Button onClick={() => setAdding(true)}>Add this name</Button>}
        </p>
      ) : (
        <ul className={styles.list}>
          {shown.map((member) => (
            <Row key={member.id} member={member} />
          ))}
        </ul>
      )}
      <AddMember open={adding} typed={shown.length === 0 ? typed : ''} close={() => setAdding(false)} />
    </>
  )
}

function Row({ member }: { member: MemberRow }) {
  return (
    <li>
      <Link href={`/riders/${member.id}`} className={styles.row}>
        <span className={styles.name}>{member.name}</span>
        {member.numbers ? (
          <>
            <span className={styles.numbers}>{member.numbers.line}</span>
            <span className={styles.when}>
              <span>{member.numbers.bike}</span>
              <span>{member.numbers.date}</span>
            </span>
          </>
        ) : (
          <span className={styles.none}>
            <i aria-hidden="true" />
            {member.openSetupId ? 'set-up left open' : 'no numbers yet'}
          </span>
        )}
      </Link>
    </li>
  )
}
