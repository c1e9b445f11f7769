'use client'
import { CopyOutlined, DeleteOutlined, DownOutlined, HolderOutlined, UpOutlined } from '@ant-design/icons'
import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { Button, Input, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useState } from 'react'
import { beatsOf, EFFORTS, HAND_POSITIONS, POSTURES, rpmOf, SPINES, type Block } from '@/core/classes/plan/blocks'
import { moveNamed, MOVES } from '@/core/classes/plan/moves'
import { NumberField } from '../../kit/NumberField'
import { HANDS_NAME } from '@/core/messages/classes/watch'
import styles from './blocks.module.css'

const EFFORT_NAME = { easy: 'easy', steady: 'steady', hard: 'hard', recovery: 'recovery' } as const
const SPINE_NAME = { long: 'long spine', longAndTucked: 'long and tucked by turns' } as const
const options = <V extends string | number>(values: readonly V[], name: (value: V) => string) =>
  values.map((value) => ({ value, label: name(value) }))

/** One block: minutes, and turns and beats from each other; the rest unfolds. */
export function BlockLine({
  block,
  from,
  fixed,
  patch,
  copy,
  remove,
}: Readonly<{
  block: Block
  from: number
  fixed: boolean
  patch: (change: Partial<Block>) => void
  copy: () => void
  remove: () => void
}>) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: block.id, disabled: fixed })
  const move = moveNamed(block.move)
  const what = block.name || 'block'
  const [unfolded, setUnfolded] = useState(false)
  return (
    <li
      ref={setNodeRef}
      className={styles.line}
      data-effort={block.effort}
      style={{ transform: CSS.Transform.toString(transform), transition }}
    >
      <button type="button" className={styles.handle} {...attributes} {...listeners} aria-label={`Move ${what}`}>
        <HolderOutlined />
      </button>
      <span className={styles.from}>{Number(from.toFixed(1))}′</span>
      <Input
        size="large"
        aria-label="Name of the block"
        placeholder="Name"
        value={block.name}
        maxLength={60}
        disabled={fixed}
        onChange={(e) => patch({ name: e.target.value })}
      />
      <label>
        min
        <NumberField
          width={76}
          aria-label={`Minutes of ${what}`}
          min={0.5}
          max={90}
          step={0.5}
          value={block.minutes}
          disabled={fixed}
          onChange={(minutes) => patch({ minutes })}
        />
      </label>
      <label>
        turns
        <NumberField
          width={76}
          aria-label={`Turns a minute of ${what}`}
          min={30}
          max={150}
          value={block.rpm}
          disabled={fixed}
          onChange={(rpm) => patch({ rpm })}
        />
      </label>
      <label>
        beats
        <NumberField
          width={76}
          aria-label={`Beats a minute of ${what}`}
          min={60}
          max={300}
          value={beatsOf(block.rpm)}
          disabled={fixed}
          onChange={(beats) => patch({ rpm: rpmOf(beats) })}
        />
      </label>
      <Select
        size="large"
        aria-label={`Posture of ${what}`}
        value={block.posture}
        disabled={fixed}
        options={options(POSTURES, String)}
        onChange={(posture) => patch({ posture })}
      />
      <Select
        size="large"
        aria-label={`Effort of ${what}`}
        value={block.effort}
        disabled={fixed}
        options={options(EFFORTS, (effort) => EFFORT_NAME[effort])}
        onChange={(effort) => patch({ effort })}
      />
      <span className={styles.ends}>
        <Button
          type="text"
          aria-label={`More of ${what}`}
          aria-expanded={unfolded}
          icon={unfolded ? <UpOutlined /> : <DownOutlined />}
          onClick={() => setUnfolded(!unfolded)}
        />
        <Button type="text" icon={<CopyOutlined />} aria-label={`Copy ${what}`} disabled={fixed} onClick={copy} />
        <Button
          type="text"
          icon={<DeleteOutlined />}
          aria-label={`Take ${what} out`}
          disabled={fixed}
          onClick={remove}
        />
      </span>
      {!unfolded && move && <p className={styles.move}>{move.name}</p>}
      {unfolded && (
        <div className={styles.more}>
          <Select
            aria-label={`Hands of ${what}`}
            value={block.hands}
            disabled={fixed}
            options={options(HAND_POSITIONS, (hands) => `hands ${HANDS_NAME[hands]}`)}
            onChange={(hands) => patch({ hands })}
          />
          <Select
            aria-label={`Spine of ${what}`}
            value={block.spine}
            disabled={fixed}
            options={options(SPINES, (spine) => SPINE_NAME[spine])}
            onChange={(spine) => patch({ spine })}
          />
          <Select
            aria-label={`Move of ${what}`}
            value={block.move ?? ''}
            disabled={fixed}
            options={[{ value: '', label: 'no move' }, ...MOVES.map((one) => ({ value: one.move, label: one.name }))]}
            onChange={(chosen) => patch({ move: chosen || undefined })}
          />
          {move && (
            <p>
              {move.form} <em>Gentler: {move.gentler}</em>
            </p>
          )}
        </div>
      )}
    </li>
  )
}
