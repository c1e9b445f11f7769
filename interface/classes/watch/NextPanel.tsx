import type { ConsoleProposal } from '@/core/classes/watch/console'
import { formatConsoleProposal } from '@/core/messages/classes/watch'
import type { WatchData } from '@/server/pages/classes/watch'
import styles from './watch.module.css'

/** What the bikes' consoles point at: written only after a confirmation. */
export function ConsoleProposals({
  proposed,
  onNote,
  onWave,
}: Readonly<{
  proposed: readonly ConsoleProposal[]
  onNote: (one: ConsoleProposal) => void
  onWave: (one: ConsoleProposal) => void
}>) {
  if (proposed.length === 0) return null
  return (
    <section className={styles.consoles} aria-label="From the consoles">
      <h2>From the consoles</h2>
      {proposed.slice(0, MAX_PROPOSED).map((one) => (
        <div key={`${one.bike} ${one.sign}`}>
          <span>{formatConsoleProposal(one)}</span>
          <button type="button" onClick={() => onNote(one)}>
            Note it
          </button>
          <button type="button" onClick={() => onWave(one)}>
            No
          </button>
        </div>
      ))}
    </section>
  )
}
const MAX_PROPOSED = 4

/** Who to look at next. */
export function NextPanel({
  way,
  data,
  onTap,
}: {
  way: readonly string[]
  data: WatchData
  onTap: (bikeId: string) => void
}) {
  return (
    <div className={styles.next}>
      <h2>Look next at</h2>
      {way.map((id) => {
        const { number, rider, toCheck } = data.bikes.find(({ bikeId }) => bikeId === id)!
        return (
          <button key={id} type="button" onClick={() => onTap(id)}>
            <b>{number}</b>
            <span>
              {rider?.name}
              {toCheck && <em>numbers not looked at yet</em>}
            </span>
          </button>
        )
      })}

      <p className={styles.quiet}>Tap a bike on the floor to note what you see, from the feet up.</p>
    </div>
  )
}
