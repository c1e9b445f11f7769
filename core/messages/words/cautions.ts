import { latest } from '../../riders/evidence/evidence'
import type { Evidence } from '../../riders/evidence/registry'

export type CautionCode =
  | 'fromTheFloor'
  | 'closeAndShake'
  | 'insertionMark'
  | 'directDrive'
  | 'askBeforeTouching'
  | 'cliniciansWord'
  | 'comfortOnly'

/** The usual cautions, finished sentences. */
export const CAUTION: Readonly<Record<CautionCode, string>> = Object.freeze({
  fromTheFloor: 'Adjust only from the floor: rider off, feet out of the pedals.',
  closeAndShake: 'Close every pin, knob and lever and shake it before anyone gets on.',
  insertionMark: 'Never raise a post past its minimum-insertion mark.',
  directDrive:
    'Direct drive: the cranks turn on with the wheel. Slow it with the resistance or the ' +
    'stop lever before taking a foot off.',
  askBeforeTouching: 'Ask before touching. Riders find their own landmarks.',
  cliniciansWord: 'Pregnancy: their clinician’s word comes before any fitting.',
  comfortOnly:
    'A comfort set-up, not medical advice. Sharp, growing or lasting pain, numbness, ' +
    'swelling, chest pain or dizziness: stop, and refer the rider to a licensed clinician. ' +
    'The studio’s rules, the bike’s manual and local codes come first.',
})

/** Which cautions belong to a step, in order of urgency. */
export function cautionsFor(
  evidence: readonly Evidence[],
  kind: 'start' | 'change' | 'stop' | 'outOfRange',
): CautionCode[] {
  const moving = kind !== 'stop'
  return [
    ...(latest(evidence, 'rider')?.pregnant ? (['cliniciansWord'] as const) : []),
    ...(moving ? (['fromTheFloor', 'closeAndShake', 'insertionMark'] as const) : []),
    ...(kind === 'start' ? (['askBeforeTouching'] as const) : []),
    'directDrive',
    'comfortOnly',
  ]
}
