'use client'
import { PlusOutlined, SearchOutlined } from '@ant-design/icons'
import { Button, Input, Pagination, type InputRef } from 'antd'
import '@/interface/kit/antd/pagination.generated.css'
import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState, useTransition } from 'react'
import { findMembers } from './findMembers'
import { AddMember } from './AddMember'
import styles from './membersView.module.css'
import { Link } from '../../kit/Link'

export type MemberRow = Readonly<{
  id: string
  name: string
  openSetupId: string | null
  numbers: Readonly<{ line: string; named: string; bike: string; date: string }> | null
}>
type Search = Readonly<{ typed: string; withoutNumbers: boolean; page: number }>
export type MembersViewProps = Readonly<{
  search: Search
  pages: Readonly<{ total: number; size: number }>
  counts: Readonly<{ all: number; withoutNumbers: number }>
  members: readonly MemberRow[]
  mayImport: boolean
  /** Whether this person may take in a rider's own file. */
  mayBringIn: boolean
}>

const IMPORT_HINT = ' Or import the list you have: names are enough.'

/** Debounce of typing before a request, ms. */
const PAUSE_MS = 200

/** The studio's members, a page at a time: `/` searches, Enter opens the first, those without numbers are marked. */
export function MembersView({ search, pages, counts, members, mayImport, mayBringIn }: MembersViewProps) {
  const router = useRouter()
  const field = useRef<InputRef>(null)
  const [typed, setTyped] = useState(search.typed)
  const [adding, setAdding] = useState(false)
  const [loading, load] = useTransition()
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)

  useEffect(() => {
    const slash = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLElement && event.target.closest('input, textarea')
      if (event.key !== '/' || inField) return
      event.preventDefault()
      field.current?.focus()
    }
    window.addEventListener('keydown', slash)
    return () => {
      window.removeEventListener('keydown', slash)
      clearTimeout(timer.current)
    }
  }, [])

  const show = (to: Partial<Search>) =>
    load(() => router.replace(addressOf({ ...search, typed, page: 1, ...to }), { scroll: to.page !== undefined }))

  function type(next: string) {
    setTyped(next)
    clearTimeout(timer.current)
    timer.current = setTimeout(() => show({ typed: next }), PAUSE_MS)
  }

  async function openFirst() {
    // A pending request of the list would come after the rider's page and replace it.
    clearTimeout(timer.current)
    const first = typed === search.typed ? members[0] : (await findMembers(typed))[0]
    if (first) router.push(`/riders/${first.id}`)
  }

  return (
    <>
      <div className={styles.head}>
        <h1>Members</h1>
        <Input
          ref={field}
          className={styles.search}
          size="large"
          prefix={<SearchOutlined />}
          suffix={<kbd className={styles.key}>/</kbd>}
          placeholder="Find by name or number"
          aria-label="Find by name"
          value={typed}
          onChange={(e) => type(e.target.value)}
          onPressEnter={openFirst}
          allowClear
        />
        <Button type="primary" size="large" icon={<PlusOutlined />} onClick={() => setAdding(true)}>
          Add a member
        </Button>
      </div>
      <button
        type="button"
        className={search.withoutNumbers ? styles.filterOn : styles.filter}
        aria-pressed={search.withoutNumbers}
        onClick={() => show({ withoutNumbers: !search.withoutNumbers })}
      >
        {counts.withoutNumbers} without numbers
      </button>
      {mayBringIn && (
        <Link className={styles.bringIn} href="/members/file">
          With a file from another studio
        </Link>
      )}
      <div aria-busy={loading || typed.trim() !== search.typed} className={loading ? styles.loading : undefined}>
        {members.length === 0 ? (
          <div className={styles.empty} data-empty>
            <p>
              {counts.all === 0
                ? `No members yet. Add the first one; a set-up takes six minutes.${mayImport ? IMPORT_HINT : ''}`
                : search.typed
                  ? `Nobody here is called “${search.typed}”.`
                  : 'Everybody here has numbers.'}
            </p>
            {counts.all === 0 && mayImport && (
              <p>
                <Button size="large" href="/studio/files">
                  Import a list
                </Button>
                <Button size="large" type="link" href="/api/files/sample.csv" download>
                  Sample list (CSV)
                </Button>
              </p>
            )}
            {search.typed && (
              <Button size="large" onClick={() => setAdding(true)}>
                Add this name
              </Button>
            )}
          </div>
        ) : (
          <ul className={styles.list}>
            {members.map((member) => (
              <Row key={member.id} member={member} />
            ))}
          </ul>
        )}
        {pages.total > pages.size && (
          <Pagination
            className={styles.pages}
            size="large"
            current={search.page}
            total={pages.total}
            pageSize={pages.size}
            showSizeChanger={false}
            showLessItems
            showTotal={(total, [from, to]) => `${from} to ${to} of ${total}`}
            onChange={(page) => show({ page })}
          />
        )}
      </div>
      <AddMember open={adding} typed={members.length === 0 ? typed : ''} close={() => setAdding(false)} />
    </>
  )
}

function addressOf({ typed, withoutNumbers, page }: Search): string {
  const query = new URLSearchParams({
    ...(typed.trim() && { find: typed.trim() }),
    ...(withoutNumbers && { without: '1' }),
    ...(page > 1 && { page: String(page) }),
  })
  return query.size > 0 ? `/members?${query}` : '/members'
}

function Row({ member }: { member: MemberRow }) {
  return (
    <li>
      <Link href={`/riders/${member.id}`} className={styles.row} prefetch={false}>
        <span className={styles.name}>{member.name}</span>
        {member.numbers ? (
          <>
            <span className={styles.numbers} title={member.numbers.named}>
              {member.numbers.line}
            </span>
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
