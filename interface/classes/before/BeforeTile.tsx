'use client'
import { useDraggable, useDroppable } from '@dnd-kit/core'
import { NEED_WORD } from '@/core/messages/classes/planning'
import type { FloorTile } from '@/server/pages/classes/floor'
import { StopMark } from '../../kit/StopMark'
import styles from './before.module.css'

/** A bike before the class: its number, who sits there, the numbers to set, and what is still to do. */
export function BeforeTile({ tile, chosen, onChoose }: { tile: FloorTile; chosen: boolean; onChoose: () => void }) {
  const { rider } = tile
  const drop = useDroppable({ id: tile.bikeId, disabled: tile.faulty, data: { number: tile.number } })
  const drag = useDraggable({ id: `rider-${tile.bikeId}`, disabled: !rider, data: { name: rider?.name } })
  const { role: _role, tabIndex: _tab, ...attributes } = drag.attributes
  return (
    <button
      ref={(node) => {
        drop.setNodeRef(node)
        drag.setNodeRef(node)
      }}
      type="button"
      {...(rider && { ...drag.listeners, ...attributes })}
      className={[
        styles.tile,
        rider ? '' : styles.free,
        chosen ? styles.chosen : '',
        drop.isOver ? styles.over : '',
        drag.isDragging ? styles.lifted : '',
      ].join(' ')}
      onClick={onChoose}
      aria-label={spoken(tile)}
    >
      <span className={styles.top}>
        <span className={styles.number}>{tile.number}</span>
        {tile.stop ? <StopMark why={tile.stop} /> : rider ? <Todo rider={rider} mark={tile.mark} /> : null}
      </span>
      <span className={styles.rider}>
        {rider?.name ?? (tile.faulty ? 'out of use' : 'free')}
        {rider?.pinned && <PinMark />}
      </span>
      {rider && <Numbers tile={tile} />}
      {rider && tile.watchFor.length > 0 && (
        <span className={styles.watch}>
          <span className={styles.prefix}>watch: </span>
          {tile.watchFor.join('; ')}
        </span>
      )}
    </button>
  )
}

/** "7 Cassius Rell, new, 12 · B · 6 · 1": what the tile shows, in one line. */
function spoken({ number, rider, faulty, numbers, remark, watchFor, mark, stop }: FloorTile): string {
  if (!rider) return `${number} ${faulty ? 'out of use' : 'free'}`
  const todo = rider.ready ? 'ready' : rider.warmUp ? 'left to the warm-up' : NEED_WORD[rider.need] || mark
  const watch = watchFor.length > 0 && `watch: ${watchFor.join('; ')}`
  const spoken = [
    stop && `stop: ${stop}`,
    todo,
    numbers?.join(' · ') ?? 'no numbers yet',
    remark,
    rider.pinned && 'pinned',
    watch,
  ]
  return [`${number} ${rider.name}`, ...spoken.filter(Boolean)].join(', ')
}

function Todo({ rider, mark }: { rider: NonNullable<FloorTile['rider']>; mark: FloorTile['mark'] }) {
  if (rider.need !== 'none')
    return (
      <em className={rider.warmUp ? styles.pillLate : styles.pillAct}>
        {rider.warmUp ? 'warm-up' : NEED_WORD[rider.need]}
      </em>
    )
  if (rider.ready) return <em className={styles.pillGood}>ready ✓</em>
  return mark ? <em className={styles.pill}>{mark}</em> : null
}

/** More letters than this together take two lines of two. */
const SHORT = 7

function Numbers({ tile }: { tile: FloorTile }) {
  if (!tile.numbers) return <span className={styles.none}>{tile.remark ?? 'no numbers yet'}</span>
  return (
    <span className={tile.numbers.join('').length > SHORT ? styles.longNumbers : styles.numbers}>
      {tile.numbers.map((label, i) => (
        <b key={i}>{label}</b>
      ))}
      {tile.remark && <small>{tile.remark}</small>}
    </span>
  )
}

export function PinMark() {
  return (
    <svg className={styles.pin} viewBox="0 0 12 16" role="img" aria-label="pinned">
      <path d="M3 1h6l-1 5 3 3H7l-1 6-1-6H1l3-3Z" />
    </svg>
  )
}
