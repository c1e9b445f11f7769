'use client'
import { App, Button, Progress, Select, Switch } from 'antd'
import '@/interface/kit/antd/progress.generated.css'
import '@/interface/kit/antd/select.generated.css'
import '@/interface/kit/antd/switch.generated.css'
import { useMemo, useState } from 'react'
import type { BikeType } from '@/core/bikes/bike/bike'
import type { SuggestionRecord } from '@/core/setups/learning/firstSuggestions'
import type { StudioPrior } from '@/core/setups/learning/studioPrior'
import { capitalized } from '@/core/messages/words/phrases'
import { QUESTION_NAME } from '@/core/messages/setups/questions'
import { SCHOOL_CHOICES } from '@/core/messages/studio/schools'
import type { StudioSettings } from '@/core/operations/requests/studioSettings'
import { DEFAULT_COSTS_S, QUESTIONS } from '@/core/setups/recommend/request/questionCosts'
import type { EarlierSetup } from '@/core/setups/recommend/history/riderHistory'
import { schoolOf, type School } from '@/core/base/school/school'
import { StudioNav } from '../frame/StudioNav'
import { NumberField } from '../kit/NumberField'
import { useAction } from '../commands/useAction'
import { MemberSelect } from '../riders/members/MemberSelect'
import { query, command } from '../commands/command'
import { LearnedChart } from './LearnedChart'
import { KneeWindow, Option } from './SchoolOptions'
import { SuggestionChart } from './SuggestionChart'
import { RidersAlone } from './RidersAlone'
import styles from './studioView.module.css'
import { choiceKey, useSchoolMarks } from './useSchoolMarks'

type Props = Readonly<{
  name: string
  settings: StudioSettings
  /** Whether riders may set a machine up alone. */
  ridersAlone: boolean
  /** What finished set-ups teach; null while it is being worked out. */
  learned: StudioPrior | null
  /** How often first suggestions were right; null while it is being worked out. */
  record: SuggestionRecord | null
  types: readonly Readonly<{ id: string; bikeType: BikeType }>[]
}>

/**
 * How the studio sets riders up: every choice where practitioners disagree, with a sentence and, for a rider one picks,
 * the marks each would have set; what checks cost; whether the studio learns.
 */
export function StudioView({ name, settings, ridersAlone, learned, record, types }: Props) {
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const [saved, setSaved] = useState(settings)
  const [draft, setDraft] = useState(settings)
  const [typeId, setTypeId] = useState(types[0]?.id)
  const [rider, setRider] = useState<Readonly<{ id: string; name: string; history: readonly EarlierSetup[] }> | null>(
    null,
  )
  const school = useMemo(() => schoolOf(draft.school), [draft.school])
  const bikeType = types.find((t) => t.id === typeId)?.bikeType
  const { marks, done } = useSchoolMarks(bikeType, rider?.history ?? null, draft.school)
  const changed = JSON.stringify(draft) !== JSON.stringify(saved)
  const choose = (change: Partial<School>) => setDraft((d) => ({ ...d, school: { ...d.school, ...change } }))

  async function save() {
    if (!(await act(() => command('studio.saveStudio', { settings: draft })))) return
    setSaved(draft)
    message.success('Kept. Set-ups go by it from now on.', 3)
  }

  return (
    <article className={styles.page}>
      <header className={styles.head}>
        <StudioNav here="How we set up" />
        <h1>{name}: how we set up</h1>
        <Button size="large" disabled={!changed || busy} onClick={() => setDraft(saved)}>
          Undo
        </Button>
        <Button type="primary" size="large" disabled={!changed} loading={busy} onClick={save}>
          Save
        </Button>
      </header>
      <p className={styles.lead}>
        Practitioners disagree; this is where the studio says what it goes by. Pick a rider to see the marks each choice
        would set, all else staying.
      </p>
      <div className={styles.pick}>
        <MemberSelect
          label="Rider"
          placeholder="For a rider …"
          className={styles.rider}
          onPick={(picked) => {
            setRider(null)
            if (!picked) return
            void act(() => query('setups.historyOf', { memberId: picked.id })).then(
              (found) => found && setRider({ ...picked, history: found.history }),
            )
          }}
        />
        {types.length > 0 && (
          <Select
            size="large"
            aria-label="Type of bike"
            value={typeId}
            onChange={setTypeId}
            options={types.map((t) => ({ value: t.id, label: t.bikeType.name }))}
            className={styles.type}
          />
        )}
        {rider && done < 1 && <Progress percent={Math.round(100 * done)} size="small" className={styles.progress} />}
        {rider && done === 1 && (
          <span className={styles.quiet}>
            {rider.history.length === 0
              ? 'Nobody set this rider up yet: the marks are those of a mean rider.'
              : `From ${rider.history.length === 1 ? 'one set-up' : `${rider.history.length} set-ups`}.`}
          </span>
        )}
      </div>
      {SCHOOL_CHOICES.map(({ field, title, question, choices }) => (
        <section key={field} className={styles.choice} aria-label={title}>
          <div>
            <h2>{title}</h2>
            <p className={styles.quiet}>{question}</p>
          </div>
          <div className={styles.options} role="radiogroup" aria-label={title}>
            {Object.entries(choices).map(([value, { name: option, means }]) => (
              <Option
                key={value}
                chosen={school[field] === value}
                name={option}
                means={means}
                marks={rider ? (marks[choiceKey(field, value)] ?? '…') : ''}
                onChoose={() => choose({ [field]: value })}
              />
            ))}
          </div>
        </section>
      ))}
      <KneeWindow school={school} choose={choose} />
      <section className={styles.choice} aria-label="What checks cost">
        <div>
          <h2>What checks cost</h2>
          <p className={styles.quiet}>
            Seconds, as this studio works. The set-up asks for what saves more dismounts than it costs.
          </p>
        </div>
        <div className={styles.costs}>
          {(['dismount', ...QUESTIONS] as const).map((what) => (
            <label key={what}>
              {what === 'dismount' ? 'A dismount with its change' : capitalized(QUESTION_NAME[what])}
              <NumberField
                min={0}
                max={3600}
                unit="s"
                value={draft.costs[what] ?? DEFAULT_COSTS_S[what]}
                onChange={(s) => setDraft((d) => ({ ...d, costs: { ...d.costs, [what]: s } }))}
              />
            </label>
          ))}
        </div>
      </section>
      <section className={styles.choice} aria-label="Learning">
        <div>
          <h2>Learning</h2>
          <p className={styles.quiet}>What finished set-ups teach stays in this studio.</p>
        </div>
        <label className={styles.learns}>
          <Switch checked={draft.learns} onChange={(learns) => setDraft((d) => ({ ...d, learns }))} />
          Finished, checked set-ups move what is believed of a new rider
        </label>
        {saved.learns && (
          <div className={styles.wide}>
            <LearnedChart learned={learned} />
          </div>
        )}
      </section>
      <RidersAlone allowed={ridersAlone} />
      <section className={styles.choice} aria-label="First suggestions">
        <div>
          <h2>First suggestions</h2>
          <p className={styles.quiet}>Are the chances shown beside the bike honest?</p>
        </div>
        <div className={styles.wide}>
          <SuggestionChart record={record} />
        </div>
      </section>
    </article>
  )
}
