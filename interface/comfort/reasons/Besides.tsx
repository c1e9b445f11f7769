'use client'
import { Button } from 'antd'
import { useState } from 'react'
import { ExerciseCard } from '../exercises/ExerciseDrawing'
import { Link } from '../../kit/Link'
import { GiveProgramme } from '../programme/GiveProgramme'
import styles from './reasons.module.css'
import type { ReasonsPage } from './reasonsPage'

/** What may help besides a change of the bike: kit and habit, and an exercise. */
export function Besides({ memberId, page }: Readonly<{ memberId: string; page: ReasonsPage }>) {
  const [giving, setGiving] = useState(false)
  return (
    <>
      {page.kit.length > 0 && (
        <section className={styles.part} aria-label="Kit and habit">
          <h2>Kit and habit</h2>
          {page.kit.map(({ about, say }) => (
            <p key={about} className={styles.kit}>
              <b>{about}.</b> {say}
            </p>
          ))}
        </section>
      )}
      {page.offBike && (
        <section className={styles.part} aria-label="Off the bike">
          <h2>A suggestion besides</h2>
          {page.offBike.exercise ? (
            <ExerciseCard exercise={page.offBike.exercise} />
          ) : (
            <p className={styles.words}>{page.offBike.words}</p>
          )}
          <p className={styles.quiet}>
            A suggestion, not therapy. What hurts while doing it is left out.{' '}
            <Link href="/class/exercises">All exercises</Link>
          </p>
          {page.subjects.length > 0 && (
            <Button size="large" onClick={() => setGiving(true)}>
              Give it for some weeks
            </Button>
          )}
        </section>
      )}
      {giving && (
        <GiveProgramme
          memberId={memberId}
          subjects={page.subjects}
          asks={page.agrees ? null : page.wording}
          close={() => setGiving(false)}
        />
      )}
    </>
  )
}
