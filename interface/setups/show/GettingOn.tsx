import { GETTING_OFF, GETTING_ON, REACH_THE_FLOOR, type MountCard } from '@/core/messages/setups/gettingOn'
import { MountPicture } from '../../kit/figures/MountPicture'
import styles from './show.module.css'

/** Getting on and off, as cards in their order: a picture, what is done, and the sentence to say. */
export function GettingOn() {
  return (
    <div className={styles.mounting}>
      <Cards title="Getting on" cards={GETTING_ON} />
      <Cards title="Getting off" cards={GETTING_OFF} />
      <p className={styles.floor}>{REACH_THE_FLOOR}</p>
    </div>
  )
}

function Cards({ title, cards }: Readonly<{ title: string; cards: readonly MountCard[] }>) {
  return (
    <section aria-label={title}>
      <h3>{title}</h3>
      <ol className={styles.cards}>
        {cards.map(({ name, text, say }, i) => (
          <li key={name}>
            <MountPicture name={name} />
            <b>
              {i + 1}. {text}
            </b>
            <q>{say}</q>
          </li>
        ))}
      </ol>
    </section>
  )
}
