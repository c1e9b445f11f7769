import { App, Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { useRouter } from 'next/navigation'
import { useTransition } from 'react'
import { SCHOOL_CHOICES } from '@/core/messages/studio/schools'
import type { School } from '@/core/base/school/school'
import { asSentence } from '@/core/messages/refusals'
import { command } from '../../commands/command'
import styles from '../steps/questions.module.css'
import type { StepPanelProps } from '../steps/stepPanelProps'

/** What may differ for one rider; the order of work and the way to a first height stay the studio's. */
const FOR_ONE_RIDER = SCHOOL_CHOICES.filter(({ field }) => field !== 'order' && field !== 'startLandmark')

/** The school of this one set-up, where it is to differ from the studio's; each change is recorded. */
export function SchoolQuestions({ context: { setupId, school, ownSchool }, saving: { finished } }: StepPanelProps) {
  const router = useRouter()
  const { message } = App.useApp()
  const [busy, start] = useTransition()

  const change = (changed: Partial<School>) =>
    start(async () => {
      try {
        const result = await command('setups.changeSchool', { setupId, school: { ...ownSchool, ...changed } })
        if (result.outcome === 'kept') router.refresh()
        else message.error(asSentence(result.say), 6)
      } catch {
        message.error('The studio’s server cannot be reached. Nothing was changed; try again.', 6)
      }
    })

  return (
    <div className={styles.school}>
      {FOR_ONE_RIDER.map(({ field, title, choices }) => (
        <label key={field}>
          {title}
          <Select
            size="large"
            disabled={busy || finished}
            value={school[field] as string}
            onChange={(value) => change({ [field]: value })}
            options={Object.entries(choices).map(([value, { name }]) => ({ value, label: name }))}
          />
        </label>
      ))}
    </div>
  )
}
