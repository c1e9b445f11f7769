'use client'
import { DndContext, KeyboardSensor, MouseSensor, TouchSensor, useSensor, useSensors } from '@dnd-kit/core'
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { App, Button, Select, Upload } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import '@/interface/kit/antd/upload.generated.css'
import dynamic from 'next/dynamic'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { planRemarks, totalMinutes, type Block } from '@/core/classes/plan/blocks'
import { formatPlanRemark } from '@/core/messages/classes/watch'
import { query, command } from '../../commands/command'
import { ClassHead } from '../head/ClassHead'
import type { ClassInfo } from '../classTypes'
import { useAction } from '../../commands/useAction'
import { BlockLine } from './BlockLine'
import { spokenBlocks } from './spokenBlocks'
import styles from './blocks.module.css'

/** The chart is heavy, and the list can be worked on before it is there. */
const PlanChart = dynamic(() => import('./PlanChart').then((module) => module.PlanChart), {
  ssr: false,
  loading: () => <div className={styles.chartWait} />,
})

/** The plan of a class: blocks in their order, the music's beats and the legs' turns worked out from each other. */
export function BlocksView({
  info,
  others,
  mayPlan,
}: Readonly<{
  info: ClassInfo
  /** Classes whose plan can be taken over. */
  others: readonly Readonly<{ id: string; name: string; blocks: readonly Block[] }>[]
  mayPlan: boolean
}>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [blocks, setBlocks] = useState<readonly Block[]>(info.blocks)
  const [before, setBefore] = useState<readonly (readonly Block[])[]>([])
  const [saved, setSaved] = useState<readonly Block[]>(info.blocks)
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 150, tolerance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const set = (next: readonly Block[]) => {
    setBefore((all) => [...all, blocks].slice(-100))
    setBlocks(next)
  }
  const patch = (id: string, change: Partial<Block>) =>
    set(blocks.map((block) => (block.id === id ? { ...block, ...change } : block)))
  const remarks = planRemarks(blocks, (info.endMs - info.startMs) / 60_000)

  async function save() {
    const done = await act(() => command('classes.saveBlocks', { classId: info.id, blocks }))
    if (!done) return
    setSaved(blocks)
    message.success('The plan is kept.', 3)
    router.refresh()
  }
  const starts = startsOf(blocks)
  return (
    <article>
      <ClassHead info={info} moment="blocks" seesNotes />
      <div className={styles.bar}>
        <p className={styles.total}>
          <b>{Number(totalMinutes(blocks).toFixed(1))}</b> of {Math.round((info.endMs - info.startMs) / 60_000)} min
        </p>
        {mayPlan && (
          <>
            <Button
              size="large"
              disabled={before.length === 0}
              onClick={() => {
                setBlocks(before[before.length - 1])
                setBefore(before.slice(0, -1))
              }}
            >
              Undo
            </Button>
            <Button size="large" type="primary" loading={busy} disabled={blocks === saved} onClick={save}>
              Keep the plan
            </Button>
          </>
        )}
        <div className={styles.files}>
          {mayPlan && (
            <Upload
              accept=".json,.csv"
              showUploadList={false}
              beforeUpload={(file) => {
                void file.text().then(async (text) => {
                  const read = await act(() => query('classes.readPlan', { text }))
                  if (!read) return
                  set(read.blocks.map((block) => ({ ...block, id: crypto.randomUUID() })))
                  if (read.faults.length > 0) message.warning(read.faults.slice(0, 3).join(' '), 10)
                })
                return false
              }}
            >
              <Button size="large">Import</Button>
            </Upload>
          )}
          {saved.length > 0 && (
            <>
              <Button size="large" href={`/api/classes/${info.id}/plan.csv`}>
                CSV
              </Button>
              <Button size="large" href={`/api/classes/${info.id}/plan.json`}>
                JSON
              </Button>
            </>
          )}
        </div>
      </div>
      {blocks.length > 0 && <PlanChart blocks={blocks} />}
      {remarks.length > 0 && (
        <ul className={styles.remarks}>
          {remarks.map((remark) => (
            <li key={JSON.stringify(remark)}>{formatPlanRemark(remark)}</li>
          ))}
        </ul>
      )}
      {blocks.length === 0 && (
        <p className={styles.none} data-empty>
          No blocks yet. {mayPlan && 'Add one, import a file, or take over the plan of another class.'}
        </p>
      )}
      <DndContext
        sensors={sensors}
        accessibility={{
          announcements: spokenBlocks(blocks),
          screenReaderInstructions: {
            draggable: 'To move this block press space, the arrows lead from place to place, space sets it down.',
          },
        }}
        onDragEnd={({ active, over }) => {
          if (!over || active.id === over.id) return
          const [from, to] = [active.id, over.id].map((id) => blocks.findIndex((block) => block.id === id))
          set(blocks.toSpliced(from, 1).toSpliced(to, 0, blocks[from]))
        }}
      >
        <SortableContext items={blocks.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <ol className={styles.list}>
            {blocks.map((block, i) => (
              <BlockLine
                key={block.id}
                block={block}
                from={starts[i]}
                fixed={!mayPlan}
                patch={(change) => patch(block.id, change)}
                copy={() => set(blocks.toSpliced(i + 1, 0, { ...block, id: crypto.randomUUID() }))}
                remove={() => set(blocks.toSpliced(i, 1))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {mayPlan && <AddBlocks others={others} add={(more) => set([...blocks, ...more])} takeOver={set} />}
    </article>
  )
}

/** A new block at the end, or the plan of another class in place of this one. */
function AddBlocks({
  others,
  add,
  takeOver,
}: Readonly<{
  others: readonly Readonly<{ id: string; name: string; blocks: readonly Block[] }>[]
  add: (more: readonly Block[]) => void
  takeOver: (blocks: readonly Block[]) => void
}>) {
  return (
    <div className={styles.add}>
      <Button size="large" onClick={() => add([freshBlock()])}>
        Add a block
      </Button>
      {others.length > 0 && (
        <Select
          size="large"
          placeholder="Take over the plan of …"
          aria-label="Take over the plan of another class"
          value={null}
          options={others.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(id) =>
            takeOver(
              others.find((one) => one.id === id)!.blocks.map((block) => ({ ...block, id: crypto.randomUUID() })),
            )
          }
        />
      )}
    </div>
  )
}

const freshBlock = (): Block => ({
  id: crypto.randomUUID(),
  name: '',
  minutes: 5,
  rpm: 85,
  posture: 'seated',
  hands: 1,
  effort: 'steady',
  spine: 'long',
})

const startsOf = (blocks: readonly Block[]): number[] => blocks.map((_, i) => totalMinutes(blocks.slice(0, i)))
