'use client'
import { Button } from 'antd'
import type { RoundData, RoundRider } from '@/server/pages/classes/round'
import { useAction } from '../../commands/useAction'
import { formatNames } from '@/core/messages/classes/planning'
import { command } from '../../commands/command'
import { ClassHead } from '../head/ClassHead'
import type { ClassInfo } from '../classTypes'
import { SetUpButton } from '../before/SetUpButton'
import styles from './round.module.css'
import { useRefresh } from '../../kit/useRefresh'
import { useClassNews } from '../useClassNews'

/** Refresh interval: another instructor may have been faster, ms. */
const REFRESH_MS = 20_000

/** Many newcomers, few hands: everybody by landmark first, then by the chance of being wrong. */
export function RoundView({ info, data }: Readonly<{ info: ClassInfo; data: RoundData }>) {
  const refresh = useRefresh(REFRESH_MS)
  const { act, busy } = useAction()
  useClassNews(info.id, (news) => news === null && refresh())
  const byLandmark = data.steps.filter(({ act }) => act === 'setByLandmark')
  const checks = data.steps.filter(({ act }) => act === 'check')
  const [next] = data.steps
  return (
    <article className={styles.page}>
      <ClassHead info={info} moment="before" seesNotes />
      <p className={styles.say}>
        {!next
          ? data.withoutBike.length > 0
            ? `${formatNames(data.withoutBike)} ${data.withoutBike.length === 1 ? 'has' : 'have'} no bike yet.`
            : data.done.length > 0
              ? 'Every newcomer is set and looked at.'
              : 'There is no newcomer in this class.'
          : next.act === 'setByLandmark'
            ? `First all by landmark: ${byLandmark.length} to go, bike ${next.number} next.`
            : `All are set. Now look at the likeliest wrong: bike ${next.number}.`}
      </p>
      {data.withoutBike.length > 0 && (
        <Button
          size="large"
          type={next ? 'default' : 'primary'}
          loading={busy}
          onClick={() =>
            act(() => command('places.placeEverybody', { classId: info.id })).then((done) => done && refresh())
          }
        >
          Place {data.withoutBike.length === 1 ? 'this newcomer' : `${data.withoutBike.length} newcomers`}
        </Button>
      )}
      {byLandmark.length > 0 && (
        <section aria-label="By landmark">
          <h2>By landmark</h2>
          <ol>
            {byLandmark.map((one) => (
              <Line key={one.id} classId={info.id} one={one} first={one === next} />
            ))}
          </ol>
        </section>
      )}
      {checks.length > 0 && (
        <section aria-label="Look again">
          <h2>Look again, the likeliest wrong first</h2>
          <ol>
            {checks.map((one) => (
              <Line key={one.id} classId={info.id} one={one} first={one === next} />
            ))}
          </ol>
        </section>
      )}
      {data.done.length > 0 && (
        <p className={styles.done}>Done: {data.done.map(({ name, number }) => `${number} ${name}`).join(', ')}</p>
      )}
    </article>
  )
}

function Line({ classId, one, first }: { classId: string; one: RoundRider; first: boolean }) {
  return (
    <li className={first ? styles.first : styles.line}>
      <b>{one.number}</b>
      <span>{one.name}</span>
      {one.wrong !== null && (
        <em>
          <i style={{ width: `${Math.round(100 * one.wrong)}%` }} />
          wrong in {Math.round(100 * one.wrong)} of 100
        </em>
      )}
      <SetUpButton type={first ? 'primary' : 'default'} classId={classId} memberId={one.id} bikeId={one.bikeId}>
        {one.act === 'check' ? 'Look' : 'Set'}
      </SetUpButton>
    </li>
  )
}
