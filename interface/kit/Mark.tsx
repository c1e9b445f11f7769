/** The house's own mark: a saddle that gives, over the dot of a crank axle. */
export function Mark({ size = 28 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 48 48" aria-hidden="true">
      <path d="M6 17c7-6 13-2 18 1s11 3 18-1c-1 7-8 9-15 9S8 25 6 17Z" fill="var(--act)" />
      <path d="M22 27 27 40" stroke="var(--ink)" strokeWidth="4" strokeLinecap="round" />
      <circle cx="27.5" cy="41" r="4" fill="var(--ink)" />
    </svg>
  )
}
