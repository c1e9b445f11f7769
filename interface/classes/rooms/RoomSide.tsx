import { Button, Input } from 'antd'
import { useRouter } from 'next/navigation'
import { overlappingBikes } from '@/core/classes/planning/roomPlan'
import { NumberField } from '../../kit/NumberField'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import { ChosenThing } from './ChosenThing'
import { afterDraft, type Draft, type ThingKey } from './roomDraft'
import type { EditedRoom, RoomEditorProps } from './roomEditorProps'
import styles from './room.module.css'

type Props = Readonly<{
  room: EditedRoom
  bikes: RoomEditorProps['bikes']
  draft: Draft
  chosen: ThingKey | null
  /** Pairs of bikes too close to each other. */
  near: ReturnType<typeof overlappingBikes>
  change: (by: Parameters<typeof afterDraft>[1]) => void
  onChoose: (key: ThingKey | null) => void
}>

/** A room's size, what is chosen on its plan, what can be added, and what is wrong with it. */
export function RoomSide({ room, bikes, draft, chosen, near, change, onChoose }: Props) {
  const router = useRouter()
  const { act } = useAction()
  const numberOf = (id: string) => bikes.find((bike) => bike.id === id)?.number ?? 0
  const out = bikes.filter(({ id }) => !draft.places[id])
  return (
    <aside className={styles.side}>
      <div className={styles.size}>
        <label>
          Name
          <Input
            size="large"
            value={draft.name}
            maxLength={80}
            onChange={(e) => change({ kind: 'rename', name: e.target.value })}
          />
        </label>
        <label>
          Width
          <NumberField
            min={3}
            max={60}
            step={0.5}
            unit="m"
            value={draft.plan.widthM}
            onChange={(widthM) => change({ kind: 'size', widthM, depthM: draft.plan.depthM })}
          />
        </label>
        <label>
          Depth
          <NumberField
            min={3}
            max={60}
            step={0.5}
            unit="m"
            value={draft.plan.depthM}
            onChange={(depthM) => change({ kind: 'size', widthM: draft.plan.widthM, depthM })}
          />
        </label>
      </div>
      <ChosenThing
        chosen={chosen}
        draft={draft}
        numberOf={numberOf}
        turn={(byDeg) => chosen && change({ kind: 'turn', key: chosen, byDeg })}
        takeOut={() => {
          if (chosen) change({ kind: 'takeOut', key: chosen })
          onChoose(null)
        }}
      />
      <div className={styles.adds}>
        {(['screen', 'door', 'fan'] as const).map((what) => (
          <Button key={what} size="large" onClick={() => change({ kind: 'add', what })}>
            Add a {what}
          </Button>
        ))}
        <Button
          size="large"
          onClick={() =>
            change({
              kind: 'arrange',
              bikeIds:
                Object.keys(draft.places).length > 0
                  ? bikes.filter(({ id }) => draft.places[id]).map(({ id }) => id)
                  : bikes.map(({ id }) => id),
            })
          }
        >
          {Object.keys(draft.places).length > 0 ? 'Set in rows' : 'Set all bikes in rows'}
        </Button>
      </div>
      {out.length > 0 && (
        <section>
          <h2>Not in this room</h2>
          <div className={styles.out}>
            {out.map(({ id, number, elsewhere }) => (
              <button
                key={id}
                type="button"
                title={elsewhere ? `stands in ${elsewhere}` : undefined}
                onClick={() => {
                  change({ kind: 'place', bikeId: id })
                  onChoose(`bike:${id}`)
                }}
              >
                {number}
                {elsewhere && <small>{elsewhere}</small>}
              </button>
            ))}
          </div>
        </section>
      )}
      {near.length > 0 && (
        <p className={styles.tightLine}>
          Too close:{' '}
          {near
            .slice(0, 4)
            .map(([a, b]) => `${numberOf(a)} and ${numberOf(b)}`)
            .join(', ')}
          .
        </p>
      )}
      <p className={styles.quiet}>
        Drag, or choose and use the arrows (with shift a metre); [ and ] turn. Everything lands on a quarter of a metre.
      </p>
      {!room.fresh && (
        <Button
          danger
          type="text"
          onClick={async () => {
            const done = await act(() => command('rooms.removeRoom', { roomId: room.id }))
            if (done) router.push('/rooms')
          }}
        >
          Take this room away
        </Button>
      )}
    </aside>
  )
}
