import styles from './setbackSigns.module.css'

/** The sign of a setback: the nose of the saddle behind the axle is plus, ahead of it minus. */
export function SetbackSigns() {
  const saddle = (noseX: number) => `M${noseX} 16h-34q-12 0 -16 -5q-3 9 4 11q6 2 14 -1h30q3 0 2 -5Z`
  return (
    <svg
      className={styles.signs}
      viewBox="0 0 250 64"
      role="img"
      aria-label="Setback is plus with the nose behind the axle, minus with the nose ahead of it"
    >
      {[
        { noseX: 62, axleX: 84, text: '+' },
        { noseX: 196, axleX: 172, text: '−' },
      ].map(({ noseX, axleX, text }) => (
        <g key={text}>
          <path className={styles.saddle} d={saddle(noseX)} />
          <path className={styles.plumb} d={`M${axleX} 6V46`} />
          <circle className={styles.axle} cx={axleX} cy={50} r={4} />
          <path className={styles.length} d={`M${noseX} 32H${axleX}`} />
          <text x={(noseX + axleX) / 2} y={61}>
            {text}
          </text>
        </g>
      ))}
      <text className={styles.way} x={232} y={20}>
        front ›
      </text>
    </svg>
  )
}
