'use client'
import { App, Button, Checkbox, Input, Select } from 'antd'
import '@/interface/kit/antd/checkbox.generated.css'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { ROLE_NAME, ROLE_TEXT } from '@/core/messages/studio/accounts'
import type { PeoplePage } from '@/server/pages/studio/people'
import { command } from '../../commands/command'
import { useAction } from '../../commands/useAction'
import { StudioNav } from '../../frame/StudioNav'
import { useCopy } from '../../kit/useCopy'
import { Keys } from './Keys'
import styles from './people.module.css'

const ROLES = ['manager', 'instructor', 'trainee', 'desk'] as const
type Role = (typeof ROLES)[number]
const ROLE_OPTIONS = ROLES.map((role) => ({ value: role, label: ROLE_NAME[role] }))
const UNTIL = new Intl.DateTimeFormat('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit' })

/** Who works here and as what, the links that are open, and what the studio is called. */
export function PeopleView({ me, facts, people, invitations, zones, secondFactorFor, keys }: PeoplePage) {
  const router = useRouter()
  const { modal } = App.useApp()
  const { act, busy } = useAction()
  const copy = useCopy()
  const [role, setRole] = useState<Role>('instructor')
  const change = async (what: () => ReturnType<typeof command>) => {
    const done = await act(what)
    if (done) router.refresh()
    return Boolean(done)
  }
  const link = (chosen: Role, userId: string | null) => change(() => command('people.invite', { role: chosen, userId }))
  const end = (userId: string, name: string) =>
    modal.confirm({
      title: `End ${name}’s access?`,
      content: 'They are signed out everywhere at once. What they did keeps their name.',
      okText: 'End it',
      okButtonProps: { danger: true },
      onOk: () => change(() => command('people.endAccess', { userId })),
    })
  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <StudioNav here="People" />
        <h1>People</h1>
      </header>
      <section aria-label="Invite">
        <h2>Invite</h2>
        <p className={styles.quiet}>
          A link that opens once, for two days. Whoever opens it chooses name and password.
        </p>
        <div className={styles.invite}>
          <Select
            size="large"
            aria-label="Role"
            value={role}
            options={ROLE_OPTIONS}
            onChange={(chosen: Role) => setRole(chosen)}
          />
          <Button type="primary" size="large" loading={busy} onClick={() => link(role, null)}>
            Make a link
          </Button>
          <span className={styles.quiet}>{ROLE_TEXT[role]}</span>
        </div>
        {invitations.length > 0 && (
          <ul className={styles.links} aria-label="Open links">
            {invitations.map((one) => (
              <li key={one.id}>
                {/* eslint-disable-next-line @next/next/no-img-element -- drawn on the server, nothing to fetch */}
                <img src={`data:image/svg+xml;utf8,${encodeURIComponent(one.qr)}`} alt="QR code of the link" />
                <div>
                  <b>{one.forName ? `New password for ${one.forName}` : ROLE_NAME[one.role]}</b>
                  <p className={styles.address}>{one.address}</p>
                  <p className={styles.quiet}>until {UNTIL.format(one.expiresAt)}</p>
                  <div className={styles.does}>
                    <Button size="large" onClick={() => copy(one.address)}>
                      Copy the link
                    </Button>
                    <Button
                      size="large"
                      loading={busy}
                      onClick={() => change(() => command('people.revokeInvitation', { invitationId: one.id }))}
                    >
                      Take it back
                    </Button>
                  </div>
                </div>
              </li>
            ))}
          </ul>
        )}
      </section>
      <section aria-label="Who works here">
        <h2>Who works here</h2>
        <ul className={styles.people}>
          {people.map((person) => (
            <li key={person.id} className={person.endedAt ? styles.ended : undefined}>
              <span>
                <b>{person.name}</b>
                <small>
                  {person.endedAt
                    ? 'access ended'
                    : [
                        `signs in as ${person.username}`,
                        ...(person.hasSecondFactor ? ['second factor on'] : []),
                        ...(person.id === me ? ['this is you'] : []),
                      ].join(', ')}
                </small>
              </span>
              {!person.endedAt && (
                <>
                  <Select
                    size="large"
                    aria-label={`Role of ${person.name}`}
                    value={person.role}
                    options={ROLE_OPTIONS}
                    onChange={(chosen: Role) =>
                      change(() => command('people.changeRole', { userId: person.id, role: chosen }))
                    }
                  />
                  <Button size="large" loading={busy} onClick={() => link(person.role, person.id)}>
                    New password
                  </Button>
                  <Button size="large" danger loading={busy} onClick={() => end(person.id, person.name)}>
                    End access
                  </Button>
                </>
              )}
            </li>
          ))}
        </ul>
      </section>
      <SecondFactorRoles roles={secondFactorFor} change={change} busy={busy} />
      <Keys keys={keys} change={change} busy={busy} />
      <Facts key={`${facts.name} ${facts.place} ${facts.timeZone}`} facts={facts} zones={zones} />
    </article>
  )
}

/** Which roles must have a second factor. */
function SecondFactorRoles({
  roles,
  change,
  busy,
}: Readonly<{
  roles: readonly Role[]
  change: (what: () => ReturnType<typeof command>) => Promise<boolean>
  busy: boolean
}>) {
  const choose = (role: Role, isOn: boolean) =>
    change(() =>
      command('people.requireSecondFactor', {
        roles: isOn ? [...roles, role] : roles.filter((one) => one !== role),
      }),
    )
  return (
    <section aria-label="Second factor">
      <h2>Second factor</h2>
      <p className={styles.quiet}>
        Whoever must have one turns it on at the next page they open. A link to a new password takes a lost one away.
      </p>
      <div className={styles.invite}>
        {ROLES.map((role) => (
          <Checkbox
            key={role}
            checked={roles.includes(role)}
            disabled={busy}
            onChange={(event) => void choose(role, event.target.checked)}
          >
            {ROLE_NAME[role]}
          </Checkbox>
        ))}
      </div>
    </section>
  )
}

/** What the studio is called and where it is. */
function Facts({ facts, zones }: Pick<PeoplePage, 'facts' | 'zones'>) {
  const router = useRouter()
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [typed, setTyped] = useState(facts)
  async function save() {
    if (!(await act(() => command('studio.saveStudioFacts', typed)))) return
    router.refresh()
    message.success('Kept.', 2)
  }
  return (
    <section aria-label="The studio">
      <h2>The studio</h2>
      <div className={styles.facts}>
        <label>
          Name
          <Input
            size="large"
            value={typed.name}
            onChange={(event) => setTyped({ ...typed, name: event.target.value })}
          />
        </label>
        <label>
          Place
          <Input
            size="large"
            value={typed.place}
            onChange={(event) => setTyped({ ...typed, place: event.target.value })}
          />
        </label>
        <label>
          Time zone
          <Select
            size="large"
            showSearch
            aria-label="Time zone"
            value={typed.timeZone}
            options={zones.map((zone) => ({ value: zone, label: zone.replaceAll('_', ' ') }))}
            onChange={(timeZone: string) => setTyped({ ...typed, timeZone })}
          />
        </label>
        <Button
          size="large"
          loading={busy}
          disabled={JSON.stringify(typed) === JSON.stringify(facts)}
          onClick={() => void save()}
        >
          Save
        </Button>
      </div>
    </section>
  )
}
