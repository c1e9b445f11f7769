import type { BikeEquipment, ClampType } from '../../bikes/bike/equipment'
import type { AxisName } from '../../base/conventions'
import type {
  Felt,
  FeltPlace,
  HomeMeasures,
  MemberMessageBody,
  MemberMessageKind,
} from '../../riders/memberPage/message'
import { ADJUSTMENT_WORDS } from '../words/adjustments'
import { CAUTION } from '../words/cautions'
import { evidenceName } from '../words/evidenceName'
import { formatList } from '../words/phrases'

export const FELT_PLACE_NAME: Readonly<Record<FeltPlace, string>> = Object.freeze({
  nowhere: 'Nowhere',
  feet: 'Feet',
  knees: 'Knees',
  hips: 'Hips',
  seat: 'Seat',
  lowerBack: 'Lower back',
  hands: 'Hands',
  shoulders: 'Shoulders',
  neck: 'Neck',
})

const LOOSEN: Readonly<Record<ClampType, string>> = {
  pin: 'Turn the knob loose and pull its pin',
  knob: 'Turn the knob loose',
  lever: 'Open the lever',
}
/** How one axis is set, standing beside the bike. */
export const formatHowToSet = (axis: AxisName, closing: BikeEquipment['closing'][AxisName], riderOn = false): string =>
  `${riderOn ? 'This one may be set in the saddle. ' : ''}${LOOSEN[closing ?? 'knob']}, ` +
  `${ADJUSTMENT_WORDS[axis].move}, close it and shake it.`

/** Cautions for every rider who sets a bike alone. */
export const MEMBER_CAUTIONS: readonly string[] = [
  CAUTION.fromTheFloor,
  CAUTION.closeAndShake,
  CAUTION.insertionMark,
  CAUTION.directDrive,
  'Strap snug, not tight; laces tucked in.',
  CAUTION.comfortOnly.replace('refer the rider to a licensed clinician', 'see a licensed clinician'),
]

/** "Felt 7 of 10, knees: a little tight" */
export function formatFelt({ comfort, place, line }: Felt): string {
  const where = place === 'nowhere' ? '' : `, ${FELT_PLACE_NAME[place].toLowerCase()}`
  return `Felt ${comfort} of 10${where}${line ? `: “${line}”` : ''}`
}

/** A member's message from their page, in one line for the studio. */
export function formatMemberMessage(kind: MemberMessageKind, body: MemberMessageBody): string {
  switch (kind) {
    case 'felt':
      return formatFelt(body as Felt)
    case 'recheck':
      return 'Asks for a second look'
    case 'home': {
      const { evidence, ownBike } = body as HomeMeasures
      const names = evidence.map(({ kind: one }) => evidenceName(one))
      return `From home: ${formatList([...names, ...(ownBike ? ['their own bike'] : [])])}`
    }
  }
}
