'use client'
import { InboxOutlined } from '@ant-design/icons'
import { Button, Input, Upload } from 'antd'
import '@/interface/kit/antd/upload.generated.css'
import { useState } from 'react'
import { FILE_REFUSAL_TEXT } from '@/core/messages/riders/riderFile'
import type { ReadResult } from '@/server/files/riderFile/read'
import { query } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { Link } from '../../kit/Link'
import { readSource } from './readSource'
import { Reading } from './Reading'
import styles from './bringIn.module.css'

/** `today`: YYYY-MM-DD on the studio's clock. */
type BringInProps = Readonly<{ mayKnowStudios: boolean; timeZone: string; today: string }>
type Read = Readonly<{ text: string; found: ReadResult }>

/** A rider from another studio with their own file: what it holds, what it is worth, and what of it is taken. */
export function BringIn({ mayKnowStudios, timeZone, today }: BringInProps) {
  const { act, busy } = useAction()
  const [read, setRead] = useState<Read | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const [pasted, setPasted] = useState('')
  async function look(text: string, memberId: string | null = null) {
    setFault(null)
    const answer = await act(() => query('riderFiles.readRiderFile', { text, memberId }))
    if (answer) setRead({ text, found: answer.file })
  }
  async function choose(file: File) {
    setRead(null)
    const source = await readSource(file)
    if ('fault' in source) setFault(source.fault)
    else await look(source.text)
  }
  const found = read?.found
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <h1>A rider’s own file</h1>
        <Link href="/members">Members</Link>
      </header>
      {found?.outcome === 'read' ? (
        <Reading
          key={`${found.rider} ${found.issuedAt}`}
          text={read!.text}
          file={found}
          mayKnowStudios={mayKnowStudios}
          timeZone={timeZone}
          today={today}
          look={(memberId) => look(read!.text, memberId)}
          another={() => setRead(null)}
        />
      ) : (
        <>
          <Upload.Dragger
            accept=".json,image/*"
            multiple={false}
            showUploadList={false}
            disabled={busy}
            beforeUpload={(file) => {
              void choose(file)
              return false
            }}
          >
            <p className={styles.icon}>
              <InboxOutlined />
            </p>
            <p className={styles.drop}>Drop the rider’s file here, or choose it</p>
            <p className={styles.quiet}>The file from their own page (JSON), or a picture of its code.</p>
          </Upload.Dragger>
          <div className={styles.paste}>
            <Input.TextArea
              aria-label="Text of the file or of its code"
              placeholder="Or paste the text of the file or of its code"
              autoSize={{ minRows: 2, maxRows: 6 }}
              value={pasted}
              onChange={(event) => setPasted(event.target.value)}
            />
            <Button size="large" loading={busy} disabled={pasted.trim() === ''} onClick={() => look(pasted)}>
              Read it
            </Button>
          </div>
          <div aria-live="polite">
            {fault && <p className={styles.fault}>{fault}</p>}
            {found && !fault && <Refusal found={found} />}
          </div>
        </>
      )}
    </article>
  )
}

/** More issues are no help. */
const MAX_SHOWN = 5

function Refusal({ found }: Readonly<{ found: Exclude<ReadResult, { outcome: 'read' }> }>) {
  return (
    <div className={styles.fault}>
      <p>{FILE_REFUSAL_TEXT[found.outcome]}</p>
      {found.outcome === 'refused' && (
        <ul>
          {found.issues.slice(0, MAX_SHOWN).map(({ pointer, reason }) => (
            <li key={`${pointer} ${reason}`}>
              {pointer && <code>{pointer}</code>} {reason}
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
