import type { Region } from '@/core/watch/signs'
import styles from './bodyFigure.module.css'

/** A rider seen from the front, the region in question lit. Drawn in a 120 × 330 box. */
export function BodyFigure({ lit }: { lit: Region }) {
  const part = (region: Region) => (region === lit ? styles.lit : styles.unlit)
  return (
    <svg className={styles.figure} viewBox="0 0 120 330" aria-hidden="true">
      <ellipse className={styles.unlit} cx="60" cy="28" rx="18" ry="23" />
      <path className={part('shoulders')} d="M24 84q2-24 26-26h20q24 2 26 26l-12 10H36Z" />
      <path
        className={part('hands')}
        d="M22 88q-10 30-6 58l6 30h12l-4-34q0-26 8-46ZM98 88q10 30 6 58l-6 30H86l4-34q0-26-8-46Z"
      />
      <path className={part('spine')} d="M40 98h40l-3 54H43Z" />
      <path className={part('hips')} d="M42 156h36q8 16 6 30H36q-2-14 6-30Z" />
      <path className={styles.unlit} d="M36 190h22l-3 42H40ZM62 190h22l-4 42H65Z" />
      <path className={part('knees')} d="M39 235h17v24H40ZM64 235h17l-1 24H64Z" />
      <path className={styles.unlit} d="M41 262h14l-2 40H44ZM65 262h14l-3 40h-9Z" />
      <path className={part('feet')} d="M42 304h13v18H30q0-10 12-18ZM65 304h13q12 8 12 18H65Z" />
    </svg>
  )
}
