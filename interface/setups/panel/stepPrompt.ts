import { axesOf } from '@/core/bikes/bike/bike'
import { isPlain } from '@/core/bikes/bike/standing'
import { isBodyEvidence, isSaddleCheck, latest } from '@/core/riders/evidence/evidence'
import type { Prompt } from '@/core/messages/setups/setupPrompts'
import { plumbCheckedSinceSet, rowsSinceSet } from '../steps/flow'
import type { StepPanelProps } from '../steps/stepPanelProps'

/** The bars stay: in the saddle something else is looked at. */
const STAYS: readonly string[] = ['passed', 'lookAgain', 'kneesNext', 'plumbFirst']

/** The prompt of the current step, as a code with its values. */
export function stepPrompt(props: StepPanelProps): Prompt {
  const {
    step,
    rows,
    answer,
    set,
    landmark,
    shown,
    context: { bikeType, school },
    saving: { finished },
    actions: { onGoOn },
  } = props
  if (onGoOn) return { code: 'savedElsewhere' }
  if (finished) return { code: 'saved' }
  const evidence = rows.map((r) => r.row)
  if (step === 'talk') return { code: latest(evidence, 'rider')?.pregnant ? 'talkPregnant' : 'talk' }
  if (!answer) return { code: 'wait' }
  const { sentence, kind, readAgain } = answer.next
  const advice: Prompt = { code: 'advice', sentence, stays: kind === 'stop' }
  const since = rowsSinceSet(rows)
  switch (step) {
    case 'beside':
      return set || evidence.some(isBodyEvidence) ? { code: 'start', sentence } : { code: 'level', landmark }
    case 'knee':
      if (since.some(({ row }) => isSaddleCheck(row)))
        return plumbCheckedSinceSet(rows) || school.foreAft === 'unused' || readAgain ? advice : { code: 'plumbToo' }
      return { code: set ? 'lookAtKnee' : 'setFirst' }
    case 'cranks':
      return plumbCheckedSinceSet(rows) ? advice : { code: 'hangPlumb', from: school.plumbFrom }
    case 'bars':
      if (answer.next.forReach) return advice
      return {
        code: 'bars',
        sentence: answer.bars.sentence,
        moves:
          answer.next.barsWhy !== undefined && kind === 'change'
            ? 'now'
            : STAYS.includes(answer.bars.decision)
              ? 'no'
              : 'maybe',
        reach: school.reach,
      }
    case 'numbers':
      if (axesOf(bikeType).some((axis) => shown[axis] === undefined)) return { code: 'marksMissing' }
      return kind === 'change' && since.length > 0
        ? { code: 'numbersWithChange', sentence }
        : { code: isPlain(bikeType) ? 'numbers' : 'otherNumbers' }
  }
}
