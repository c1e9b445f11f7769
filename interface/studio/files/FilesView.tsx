'use client'
import { DownloadOutlined, InboxOutlined } from '@ant-design/icons'
import { Button, Progress, Upload } from 'antd'
import '@/interface/kit/antd/progress.generated.css'
import '@/interface/kit/antd/upload.generated.css'
import { useRouter } from 'next/navigation'
import { useRef, useState, type ReactNode } from 'react'
import type { ColumnMap, ImportOutcome } from '@/server/files/importMembers'
import type { ArchiveOutcome } from '@/core/messages/studio/archive'
import { StudioNav } from '../../frame/StudioNav'
import { FileResult } from './FileResult'
import { requestFile, sendFile, type Chosen, type Refused } from './requestFile'
import { ListColumns } from './ListColumns'
import styles from './filesView.module.css'

type Outcome = ImportOutcome | ArchiveOutcome | Refused
type Busy = Readonly<{ what: string; share: number | null }>

/** Everything out, anything in: a list is shown, checked line by line, and brought in whole or not at all. */
export function FilesView({ children }: Readonly<{ children?: ReactNode }>) {
  const router = useRouter()
  const [name, setName] = useState('')
  const [chosen, setChosen] = useState<Chosen | null>(null)
  const [columns, setColumns] = useState<ColumnMap>([])
  const [busy, setBusy] = useState<Busy | null>(null)
  const [result, setResult] = useState<Outcome | null>(null)
  const running = useRef<AbortController | null>(null)

  async function run<T>(what: string, work: (signal: AbortSignal) => Promise<T>): Promise<T> {
    running.current?.abort()
    const controller = new AbortController()
    running.current = controller
    setBusy({ what, share: null })
    try {
      return await work(controller.signal)
    } finally {
      if (running.current === controller) setBusy(null)
    }
  }
  async function choose(file: File) {
    setName(file.name)
    setResult(null)
    setChosen(null)
    const sent = await run('Reading the file', (signal) => sendFile(file, signal))
    if (sent.outcome === 'refused') return setResult(sent)
    setChosen(sent)
    if (sent.kind === 'list') setColumns(sent.preview.columns)
  }
  async function send(what: 'check' | 'import') {
    if (!chosen) return
    const saying = what === 'check' ? 'Checking every line' : 'Bringing it in'
    setResult(null)
    const answer = await run(saying, (signal) =>
      requestFile<ImportOutcome | ArchiveOutcome>(
        chosen.id,
        { what, columns },
        (share) => setBusy({ what: saying, share }),
        signal,
      ),
    )
    setResult(answer)
    if (answer.outcome === 'kept') {
      setChosen(null)
      router.refresh()
    }
  }
  return (
    <article>
      <header className={styles.head}>
        <StudioNav here="Files" />
        <h1>Files</h1>
      </header>
      <section className={styles.part} aria-label="Export">
        <h2>Export</h2>
        <div className={styles.out}>
          <Button size="large" icon={<DownloadOutlined />} href="/api/files/members.csv" download>
            Members and numbers
          </Button>
          <p>A line for each set of numbers, for any spreadsheet (CSV, UTF-8).</p>
        </div>
        <div className={styles.out}>
          <Button size="large" icon={<DownloadOutlined />} href="/api/files/studio.json" download>
            The whole studio
          </Button>
          <p>
            Everything in this studio, with bodies and health notes: keep it where nobody else can read it (JSON; its
            schema is in docs/schemas).
          </p>
        </div>
      </section>
      <section className={styles.part} aria-label="Import">
        <h2>Import</h2>
        <Upload.Dragger
          accept=".csv,.txt,.tsv,.json"
          multiple={false}
          showUploadList={false}
          disabled={busy !== null}
          beforeUpload={(file) => {
            void choose(file)
            return false
          }}
        >
          <p className={styles.icon}>
            <InboxOutlined />
          </p>
          <p className={styles.drop}>Drop a list of members or an archive here, or choose one</p>
          <p className={styles.quiet}>
            A list (CSV) with any separator and encoding, or a whole studio (JSON) into one that holds nothing yet. You
            see it first. Nothing is saved until every line is right.
          </p>
        </Upload.Dragger>
        <div className={`${styles.out} ${styles.sample}`}>
          <Button size="large" icon={<DownloadOutlined />} href="/api/files/sample.csv" download>
            Sample list
          </Button>
          <p>
            To copy (CSV): member number, first and last name, e-mail, height, and numbers on your bikes. A name is
            enough.
          </p>
        </div>
        {busy && (
          <div className={styles.busy} role="status">
            <span>{busy.what} …</span>
            <Progress percent={Math.round(100 * (busy.share ?? 0))} showInfo={busy.share !== null} />
            <Button size="large" onClick={() => running.current?.abort()}>
              Stop
            </Button>
          </div>
        )}
        {chosen?.kind === 'list' && (
          <ListColumns
            name={name}
            preview={chosen.preview}
            columns={columns}
            onColumns={(next) => {
              setColumns(next)
              setResult(null)
            }}
          />
        )}
        <div aria-live="polite">{result && <FileResult result={result} />}</div>
        {chosen?.kind === 'archive' && (
          <p className={styles.list}>
            <b>{name}</b>, an archive of {Math.max(1, Math.round(chosen.bytes / 1000))} kB
          </p>
        )}
        {chosen && !busy && (
          <div className={styles.does}>
            {result?.outcome === 'fits' ? (
              <Button type="primary" size="large" onClick={() => send('import')}>
                Bring it in
              </Button>
            ) : (
              <Button type="primary" size="large" onClick={() => send('check')}>
                {chosen.kind === 'list' ? 'Check every line' : 'Check the archive'}
              </Button>
            )}
            <Button size="large" onClick={() => setChosen(null)}>
              Another file
            </Button>
          </div>
        )}
      </section>
      {children}
    </article>
  )
}
