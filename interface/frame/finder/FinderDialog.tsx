'use client'
import { SearchOutlined } from '@ant-design/icons'
import { Input, Modal } from 'antd'
import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState, type KeyboardEvent as ReactKeyboardEvent } from 'react'
import { AntdProvider } from '../../kit/theme/AntdProvider'
import styles from './finder.module.css'
import type { FoundMember } from '@/server/setups/findWithNumbers'

/** Debounce of typing before a request, ms. */
const PAUSE_MS = 90

type Answer = Readonly<{ of: string; members: readonly FoundMember[] | null }>

/** A few letters of a name find the numbers. */
export default function FinderDialog({ open, close }: { open: boolean; close: () => void }) {
  return (
    <AntdProvider inside>
      <Modal
        open={open}
        onCancel={close}
        footer={null}
        closable={false}
        width={680}
        destroyOnHidden
        title={<span className={styles.hidden}>Find a rider’s numbers</span>}
      >
        <Search close={close} />
      </Modal>
    </AntdProvider>
  )
}

function Search({ close }: { close: () => void }) {
  const router = useRouter()
  const [typed, setTyped] = useState('')
  const [answer, setAnswer] = useState<Answer>({ of: '', members: [] })
  const [at, setAt] = useState(0)
  const text = typed.trim()
  const latest = useRef('')
  useEffect(() => {
    latest.current = text
    if (text === '') return
    const timer = setTimeout(async () => {
      const members = await fetch(`/api/members?find=${encodeURIComponent(text)}`)
        .then(async (response) =>
          response.ok ? ((await response.json()) as { members: FoundMember[] }).members : null,
        )
        .catch(() => null)
      // An answer that comes after a later letter is none.
      if (latest.current !== text) return
      setAnswer({ of: text, members })
      setAt(0)
    }, PAUSE_MS)
    return () => clearTimeout(timer)
  }, [text])
  const members = text === '' ? [] : (answer.members ?? [])
  const open = (id: string) => {
    close()
    router.push(`/riders/${id}`)
  }
  function press(event: ReactKeyboardEvent) {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
    if (step === 0) return
    event.preventDefault()
    setAt((i) => Math.min(members.length - 1, Math.max(0, i + step)))
  }
  return (
    <>
      <Input
        autoFocus
        size="large"
        prefix={<SearchOutlined />}
        placeholder="A few letters of a name"
        aria-label="Find a rider’s numbers"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={press}
        // Enter before the answer to the last letter would open somebody else.
        onPressEnter={() => answer.of === text && members[at] && open(members[at].id)}
      />
      <div aria-live="polite">
        {text !== '' && answer.of === text && members.length === 0 && (
          <p className={styles.none}>
            {answer.members === null
              ? 'The studio’s server cannot be reached, or you are signed out. Nothing was lost.'
              : `Nobody here has a name that begins with “${text}”.`}
          </p>
        )}
        <ul className={styles.found}>
          {members.map((member, i) => (
            <li key={member.id}>
              <button
                type="button"
                className={i === at ? styles.at : undefined}
                onClick={() => open(member.id)}
                onFocus={() => setAt(i)}
              >
                <b className={styles.name}>{member.name}</b>
                {member.sets.length === 0 && <span className={styles.sure}>no numbers yet</span>}
                {member.sets.map((set) => (
                  <span key={set.id} className={styles.set}>
                    <span className={styles.where}>
                      {set.where}
                      <small>{set.sure}</small>
                    </span>
                    {set.numbers.map(({ title, text }) => (
                      <span key={title} className={styles.number}>
                        <small>{title}</small>
                        <strong>{text}</strong>
                      </span>
                    ))}
                  </span>
                ))}
              </button>
            </li>
          ))}
        </ul>
      </div>
    </>
  )
}
