import type { MachineCodePage } from '@/server/pages/bikes/machineCode'
import { MEMBER_CAUTIONS } from '@/core/messages/riders/memberPage'
import { BikeTour } from '../show/BikeTour'
import { GettingOn } from '../show/GettingOn'
import { AloneFlow } from './AloneFlow'
import { aloneFlowProps, middleMarks } from './aloneProps'
import styles from './alone.module.css'
import { OwnLink } from './OwnLink'

/** What a machine's code opens: the machine in its own labels, and a way to set it up. */
export function MachineCodeView({ code, page }: Readonly<{ code: string; page: MachineCodePage }>) {
  if (page.state !== 'inForce')
    return (
      <main className={styles.page}>
        <p className={styles.studio}>{page.studio}</p>
        <h1>{page.state === 'changed' ? 'This code was changed.' : 'This bike has left the studio.'}</h1>
        <p>
          {page.state === 'changed'
            ? 'Scan the code that is on the bike now; where there is none, ask the instructor.'
            : 'Scan the code of the bike you ride.'}
        </p>
      </main>
    )
  const { studio, number, type, closing, outOfUse, mayAlone } = page
  return (
    <main className={styles.page}>
      <p className={styles.studio}>{studio}</p>
      <h1>
        Bike {number} <small>{type.name}</small>
      </h1>
      {outOfUse ? (
        <p className={styles.stop} role="alert">
          This bike is out of use. Take another one, and leave this one as it is.
        </p>
      ) : (
        <>
          <OwnLink code={code} />
          {mayAlone ? (
            <AloneFlow {...aloneFlowProps(code, page)} gettingOn={<GettingOn />} />
          ) : (
            <p className={styles.ask}>Here an instructor sets you up. Come some minutes early and ask.</p>
          )}
        </>
      )}
      <details className={styles.part}>
        <summary>Getting on and off</summary>
        <GettingOn />
      </details>
      <details className={styles.part}>
        <summary>The parts of this bike</summary>
        <BikeTour bikeType={type} closing={closing} marks={middleMarks(page)} />
      </details>
      <section className={styles.cautions} aria-label="Before you ride">
        <h2>Before you ride</h2>
        <ul>
          {MEMBER_CAUTIONS.map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
      </section>
    </main>
  )
}
