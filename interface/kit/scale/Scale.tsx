'use client'
import { useEffect, useRef } from 'react'
import type { Label } from '@/core/base/conventions'
import styles from './scale.module.css'

/** One mark as drawn: its label, whether it is set here or to be set next, its chance, and what was found at it. */
export type DrawnMark = Readonly<{
  label: Label
  text: string
  set: boolean
  isTarget: boolean
  chance?: number
  flag?: string
}>

type Props = Readonly<{
  title: string
  /** Upright scales run from the highest mark down, level ones from the rearmost forward. */
  way: 'upright' | 'level'
  marks: readonly DrawnMark[]
  remark: string
  onTap?: (label: Label) => void
  asking?: boolean
  /** Holes as drilled, or ticks as on a ruler. */
  drawnAs: 'holes' | 'ticks'
}>

/**
 * A bike's own scale as an input: tapping a mark means "it is set here". Arrow keys walk along it, Enter taps.
 * Each mark has its chance as a bar and as a number.
 */
export function Scale({ title, way, marks, remark, onTap, asking = false, drawnAs }: Props) {
  const list = useRef<HTMLDivElement>(null)
  const focus =
    marks.find((m) => m.isTarget)?.label ??
    marks.find((m) => m.set)?.label ??
    marks[Math.floor(marks.length / 2)]?.label
  const withChances = marks.some((m) => m.chance !== undefined)
  const best = Math.max(...marks.map((m) => m.chance ?? 0))

  const tappedAtMs = useRef(-Infinity)
  useEffect(() => {
    const box = list.current
    const mark = box?.querySelector<HTMLElement>('[data-focus]')
    if (!box || !mark) return
    // What a hand taps does not move away under it.
    const isStill = () => performance.now() - tappedAtMs.current < STILL_MS
    const bring = (behavior: ScrollBehavior) => {
      if (isStill()) return
      if (way === 'upright')
        box.scrollTo({ top: mark.offsetTop - (box.clientHeight - mark.clientHeight) / 2, behavior })
      else box.scrollTo({ left: mark.offsetLeft - (box.clientWidth - mark.clientWidth) / 2, behavior })
    }
    bring(matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth')
    // The room for the scale changes with its neighbours; the mark stays visible.
    let first = true
    const watch = new ResizeObserver(() => (first ? (first = false) : bring('auto')))
    watch.observe(box)
    return () => watch.disconnect()
  }, [focus, way])

  function walk(event: React.KeyboardEvent<HTMLDivElement>) {
    const step = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key]
    if (!step) return
    event.preventDefault()
    const buttons = [...event.currentTarget.querySelectorAll('button')]
    const at = buttons.indexOf(document.activeElement as HTMLButtonElement)
    buttons[Math.min(buttons.length - 1, Math.max(0, at + step))]?.focus()
  }

  return (
    <section
      className={`${styles.scale} ${styles[way]} ${asking ? styles.asking : ''}`}
      data-asking={asking ? '' : undefined}
    >
      <h2>{title}</h2>
      <div className={styles.frame}>
        <div
          ref={list}
          className={styles.marks}
          tabIndex={onTap ? undefined : 0}
          role="group"
          aria-label={`${title}: tap where it is set`}
          onKeyDown={walk}
        >
          {marks.map((mark) => (
            <button
              key={mark.label}
              type="button"
              tabIndex={mark.label === focus ? 0 : -1}
              data-focus={mark.label === focus ? '' : undefined}
              className={styles.mark}
              disabled={!onTap}
              aria-pressed={mark.set}
              aria-label={spoken(title, mark)}
              onClick={() => {
                tappedAtMs.current = performance.now()
                onTap?.(mark.label)
              }}
            >
              <span className={`${styles.dot} ${mark.set ? styles.set : ''} ${mark.isTarget ? styles.wanted : ''}`}>
                {mark.text}
              </span>
              <i className={`${styles.rail} ${styles[drawnAs]} ${mark.set ? styles.pinned : ''}`} aria-hidden="true" />
              {mark.flag && <span className={styles.flag}>{mark.flag}</span>}
              {withChances && <Chance chance={mark.chance ?? 0} best={best > 0 && mark.chance === best} />}
            </button>
          ))}
        </div>
      </div>
      <p className={styles.remark}>{remark}</p>
    </section>
  )
}

/** After a tap on a scale it stays where it is for so long, ms. */
const STILL_MS = 6000

function Chance({ chance, best }: { chance: number; best: boolean }) {
  return (
    <span className={styles.chance} aria-hidden="true">
      <i className={best ? styles.best : ''} style={{ '--share': chance } as React.CSSProperties} />
      {chance >= 0.02 && <em className={best ? styles.bestText : ''}>{Math.min(99, Math.round(100 * chance))}</em>}
    </span>
  )
}

function spoken(title: string, mark: DrawnMark): string {
  const chance = mark.chance === undefined ? '' : `, chance ${Math.round(100 * mark.chance)} of 100`
  const states = [mark.flag, mark.set && 'set here', mark.isTarget && 'wanted next'].filter(Boolean)
  return [`${title} ${mark.text}`, ...states].join(', ') + chance
}
