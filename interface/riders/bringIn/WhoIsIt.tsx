'use client'
import type { ReadRiderFile } from '@/server/files/riderFile/read'
import type { Member } from '@/server/riders/members/members'
import { MemberSelect } from '../members/MemberSelect'
import styles from './bringIn.module.css'

/** Whose file it is: a member, or somebody new; null until it was said. */
export type Who = Member | Readonly<{ name: string }> | null

type WhoIsItProps = Readonly<{ file: ReadRiderFile; who: Who; choose: (who: Who) => void }>

/** Asks whose file it is: of one name there may be several people. */
export function WhoIsIt({ file: { rider, members }, who, choose }: WhoIsItProps) {
  const chosenId = who && 'id' in who ? who.id : null
  return (
    <section className={styles.part} aria-label="Who it is">
      <h2>Who it is</h2>
      <div className={styles.who} role="group" aria-label="Who it is">
        {members.map((member, i) => (
          <button key={member.id} type="button" aria-pressed={chosenId === member.id} onClick={() => choose(member)}>
            {member.name}, a member here{members.length > 1 && ` (${i + 1} of ${members.length})`}
          </button>
        ))}
        {rider !== '' && (
          <button
            type="button"
            aria-pressed={who !== null && chosenId === null}
            onClick={() => choose({ name: rider })}
          >
            {rider}, new here
          </button>
        )}
        <MemberSelect
          className={styles.find}
          label="Another member"
          placeholder="Another member"
          onPick={(picked) => choose(picked)}
        />
      </div>
    </section>
  )
}
