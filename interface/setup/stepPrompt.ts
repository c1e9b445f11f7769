import { latest, SADDLE_CHECKS } from '@/core/evidence/evidence'
import type { StepPanelProps } from './stepPanelProps'
import { rowsSinceSet, latestSinceSet, isBodyEvidence } from './flow'

const LANDMARK_SAID = {
  hipCrest: 'the top of the hip bone at the side',
  frontHipBone: 'the bony point at the front of the pelvis',
  between: 'half-way from the thigh’s bony knob to the top of the hip bone',
  trochanter: 'the bony knob at the top of the thigh',
} as const

/** The sentence of a step, and the small line under it that says how, or what to take care of. */
export function stepPrompt({ step, rows, answer, set, landmark, finished, onGoOn, shown, bikeType }: StepPanelProps): {
  sentence: string
  small: string
} {
  if (onGoOn)
    return {
      sentence: 'Somebody else saved the numbers of this set-up.',
      small: 'Theirs stand on the rider’s page. To change them, start a new set-up from what was seen here.',
    }
  if (finished)
    return { sentence: 'These numbers are saved.', small: 'To change them, start a new set-up from the rider’s page.' }
  const evidence = rows.map((r) => r.row)
  if (step === 'talk') {
    return {
      sentence: latest(evidence, 'rider')?.pregnant
        ? 'Their clinician’s word comes first; then fit for comfort only.'
        : 'Talk first: how much have they ridden, and does anything hurt?',
      small:
        'Pain that is sharp, growing or lasting, numbness, swelling, recent surgery or a heart condition: to a licensed clinician before any fitting.',
    }
  }
  if (!answer) return { sentence: 'One moment.', small: '' }
  if (step === 'beside') {
    const found = evidence.some(isBodyEvidence)
    if (set || found)
      return {
        sentence: answer.next.sentence,
        small: 'Rider off. Close the pins and shake them; keep the insertion mark covered.',
      }
    return {
      sentence: `Bring the saddle level with ${LANDMARK_SAID[landmark]}, then tap the mark it meets.`,
      small: 'The rider stands beside the bike in their shoes and finds the spot. Ask before touching.',
    }
  }
  if (step === 'knee') {
    const looked = rowsSinceSet(rows).some(({ row }) => SADDLE_CHECKS.includes(row.kind))
    if (looked && !latestSinceSet(rows, 'plumb') && !answer.next.readAgain)
      return {
        sentence: 'Stay in the saddle: level the cranks and hang the plumb line too.',
        small: 'One change then serves both readings, and nobody climbs off twice.',
      }
    if (looked) return { sentence: answer.next.sentence, small: careFor(answer.next.kind) }
    if (!set)
      return {
        sentence: 'Set the saddle first, or tap the marks it stands at.',
        small: 'Then rider on, ten to fifteen easy turns.',
      }
    return {
      sentence: 'Rider on, ten to fifteen easy turns, then hold the pedal at its farthest. How is the knee?',
      small:
        'Direct drive: slow the wheel with the resistance before stopping. Heel check: heel on the pedal, pelvis level.',
    }
  }
  if (step === 'cranks') {
    if (latestSinceSet(rows, 'plumb')) return { sentence: answer.next.sentence, small: careFor(answer.next.kind) }
    return {
      sentence: 'Cranks level. Hang a string from the front of the knee: where does it fall?',
      small: 'Ahead of the pedal axle is plus, behind is minus. A few millimetres are nothing.',
    }
  }
  if (step === 'bars')
    return {
      sentence: answer.bars.sentence,
      small: 'Rider off to adjust, or tap other marks on the bars. Never cure a bad reach with the saddle’s slide.',
    }
  const open = Object.keys(bikeType.axes).filter((axis) => shown[axis as keyof typeof shown] === undefined)
  return open.length > 0
    ? { sentence: 'Tap the mark on every scale, then save.', small: '' }
    : answer.next.kind === 'change' && rowsSinceSet(rows).length > 0
      ? { sentence: 'These are the numbers as they stand; one change is still advised.', small: answer.next.sentence }
      : {
          sentence: 'Say the four numbers aloud, save them, and look again in the warm-up.',
          small: 'A comfort set-up, not medical advice. The first ride on a new position is a short one.',
        }
}

function careFor(kind: 'start' | 'change' | 'stop' | 'outOfRange'): string {
  return kind === 'stop'
    ? 'Slow the wheel with the resistance before a foot comes off.'
    : 'Rider off, feet on the floor. Close the pin and shake it; then back on and look again.'
}
