'use client'
import { DownloadOutlined, PlusOutlined, UploadOutlined } from '@ant-design/icons'
import { App, Button, Input, Modal, Select, Upload } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import '@/interface/kit/antd/upload.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { BikeType } from '@/core/bikes/bike/bike'
import { referenceMarks } from '@/core/bikes/bike/referenceMarks'
import { formatImport } from '@/core/messages/bikes/typeImport'
import { asSentence, formatFileIssues } from '@/core/messages/refusals'
import { BikeDrawing } from '../../kit/drawing/BikeDrawing'
import { useUnitSystem } from '../../kit/theme/DevicePreferences'
import { query, command } from '../../commands/command'
import parts from '../parts.module.css'
import { RetiredBikes } from './RetiredBikes'
import styles from './bikesView.module.css'
import { useAction } from '../../commands/useAction'
import { Link } from '../../kit/Link'

export type BikesViewProps = Readonly<{
  /** What this person's role allows: looks over machines; types and machines themselves. */
  mayInspect: boolean
  mayManage: boolean
  types: readonly Readonly<{
    lineId: string
    version: number
    bikeType: BikeType
    sure: string
    measured: boolean
    count: number
  }>[]
  bikes: readonly Readonly<{ id: string; number: number; type: string; state: string; bad: boolean; out: boolean }>[]
  retired: readonly Readonly<{ id: string; number: number; type: string; when: string }>[]
}>

/** The studio's types and machines: what each is, how precisely it is measured, which one needs work. */
export function BikesView({ mayInspect, mayManage, types, bikes, retired }: BikesViewProps) {
  const { shown } = useUnitSystem()
  return (
    <>
      <div className={parts.head}>
        <h1>Bikes</h1>
        {bikes.length > 0 && (
          <>
            {mayInspect && (
              <Button size="large" href="/bikes/round">
                Look over
              </Button>
            )}
            <Button size="large" href="/bikes/fits">
              Who fits
            </Button>
          </>
        )}
        {mayManage && (
          <Button size="large" type="primary" icon={<PlusOutlined />} href="/bikes/types/new">
            Add a type
          </Button>
        )}
      </div>
      {types.length === 0 ? (
        <div className={styles.empty} data-empty>
          <p>
            No bikes yet. Describe the first type as its scales are printed, lay a tape on one machine, then add the
            others by their numbers.
          </p>
          {mayManage && <ImportButton />}
        </div>
      ) : (
        <section className={parts.part}>
          <h2>
            <span>Types</span>
            {mayManage && <ImportButton />}
            <ExportButton />
          </h2>
          <ul className={parts.types}>
            {types.map(({ lineId, version, bikeType, sure, measured, count }) => (
              <li key={lineId}>
                <div className={styles.small}>
                  <BikeDrawing bikeType={bikeType} marks={referenceMarks(bikeType)} shown={shown} />
                </div>
                <div>
                  <b>{bikeType.name}</b>
                  <p className={measured ? parts.good : parts.act}>{sure}</p>
                  <p className={parts.quiet}>
                    {count} {count === 1 ? 'bike' : 'bikes'}, version {version}
                  </p>
                </div>
                {mayManage && (
                  <div className={parts.ways}>
                    <Button type={measured ? 'default' : 'primary'} href={`/bikes/types/${lineId}/tape`}>
                      Lay the tape
                    </Button>
                    <Button href={`/bikes/types/${lineId}`}>Edit</Button>
                    <Button href={`/bikes/types/new?copy=${lineId}`}>Copy</Button>
                    {count === 0 && <DeleteType lineId={lineId} name={bikeType.name} />}
                  </div>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {types.length > 0 && (
        <section className={parts.part}>
          <h2>
            <span>Machines</span>
            {mayManage && <AddMachines types={types} />}
            {mayInspect && bikes.length > 0 && (
              <Button href="/api/cards/bikes" target="_blank">
                Print their codes
              </Button>
            )}
          </h2>
          {bikes.length === 0 ? (
            <p className={styles.empty} data-empty>
              No machines yet. Add them by their numbers; a type’s geometry holds for all of them, and one or two tape
              readings set each one’s own offset.
            </p>
          ) : (
            <div className={styles.fleet}>
              {bikes.map((bike) => (
                <Tile key={bike.id} bike={bike} href={mayInspect ? `/bikes/${bike.id}` : null} />
              ))}
            </div>
          )}
        </section>
      )}
      <RetiredBikes bikes={retired} mayManage={mayManage} />
    </>
  )
}

/** Deletes a type that nothing uses, after a question. */
function DeleteType({ lineId, name }: Readonly<{ lineId: string; name: string }>) {
  const router = useRouter()
  const { modal } = App.useApp()
  const { act } = useAction()
  return (
    <Button
      danger
      onClick={() =>
        modal.confirm({
          title: `Delete the type ${name}?`,
          content: 'Its scales and its tape readings go with it. This cannot be undone; an export keeps a copy.',
          okText: 'Delete it',
          okButtonProps: { danger: true },
          cancelText: 'Keep it',
          onOk: async () => {
            if (await act(() => command('bikes.deleteType', { lineId }))) router.refresh()
          },
        })
      }
    >
      Delete
    </Button>
  )
}

/** One machine: its number, what it is, how it is; a way to its own page where there is one for this person. */
function Tile({ bike, href }: { bike: BikesViewProps['bikes'][number]; href: string | null }) {
  const look = `${styles.bike} ${bike.out ? styles.out : ''}`
  const content = (
    <>
      <b>{bike.number}</b>
      <span>{bike.type}</span>
      <span className={bike.bad ? parts.act : parts.quiet}>{bike.state}</span>
    </>
  )
  return href === null ? (
    <div className={look}>{content}</div>
  ) : (
    <Link href={href} className={look}>
      {content}
    </Link>
  )
}

function ExportButton() {
  const { act, busy } = useAction()
  async function download() {
    const found = await act(() => query('bikes.exportTypes', {}))
    if (!found) return
    const url = URL.createObjectURL(new Blob([found.text], { type: 'application/json' }))
    const link = Object.assign(document.createElement('a'), { href: url, download: 'bike-types.json' })
    link.click()
    URL.revokeObjectURL(url)
  }
  return (
    <Button icon={<DownloadOutlined />} loading={busy} onClick={download}>
      Export
    </Button>
  )
}

function ImportButton() {
  const router = useRouter()
  const { message } = App.useApp()
  const [lines, setLines] = useState<readonly string[]>([])
  async function bring(file: File) {
    const answer = await command('bikes.importTypes', { text: await file.text() }).catch(() => null)
    if (!answer) return setLines(['The studio’s server cannot be reached; try again.'])
    if (answer.outcome === 'refused')
      return setLines(answer.code === 'fileIssues' ? formatFileIssues(answer.issues) : [asSentence(answer.say)])
    message.success(formatImport(answer.imported), 6)
    router.refresh()
  }
  return (
    <>
      <Upload
        accept="application/json,.json"
        showUploadList={false}
        beforeUpload={(file) => {
          void bring(file)
          return false
        }}
      >
        <Button icon={<UploadOutlined />}>Import</Button>
      </Upload>
      <Modal open={lines.length > 0} onCancel={() => setLines([])} footer={null} title="Nothing was imported">
        <ul className={parts.faults}>
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
        <p className={parts.quiet}>Correct the file and choose it again. An import is all or nothing.</p>
      </Modal>
    </>
  )
}

function AddMachines({ types }: { types: BikesViewProps['types'] }) {
  const router = useRouter()
  const { act, busy } = useAction()
  const [open, setOpen] = useState(false)
  const [line, setLine] = useState(types[0].lineId)
  const [typed, setTyped] = useState('')
  async function add() {
    if (!(await act(() => command('bikes.addMachines', { lineId: line, typed })))) return
    setOpen(false)
    setTyped('')
    router.refresh()
  }
  return (
    <>
      <Button icon={<PlusOutlined />} onClick={() => setOpen(true)}>
        Add machines
      </Button>
      <Modal open={open} onCancel={() => setOpen(false)} footer={null} title="Add machines">
        <form
          className={parts.fields}
          onSubmit={(event) => {
            event.preventDefault()
            add()
          }}
        >
          <label className={parts.wide}>
            Type
            <Select
              size="large"
              aria-label="Type"
              value={line}
              onChange={setLine}
              options={types.map((t) => ({ value: t.lineId, label: t.bikeType.name }))}
            />
          </label>
          <label className={parts.wide}>
            Numbers, such as 1-4 7
            <Input size="large" autoComplete="off" value={typed} onChange={(e) => setTyped(e.target.value)} />
          </label>
          <Button className={parts.wide} type="primary" size="large" htmlType="submit" loading={busy} block>
            Add
          </Button>
        </form>
      </Modal>
    </>
  )
}
