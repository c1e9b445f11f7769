import { OPENED_BY, type CareDeed, type CareInterval, type CarePart, type CareState } from '../../bikes/care/care'

/** A part as named; what seeing to it is; what it costs to leave it. */
type PartWords = Readonly<{ name: string; task: string; leave: string }>

/** Common practice, no source. */
export const CARE_TEXT: Readonly<Record<CarePart, PartWords>> = Object.freeze({
  pins: {
    name: 'Pins and levers',
    task: 'Pull each, let it snap in, shake it; clean and oil its spring.',
    leave: 'A pin that does not snap in lets a post drop under a rider.',
  },
  bolts: {
    name: 'Bolts',
    task: 'Tighten those of cranks, feet and frame to the maker’s torque.',
    leave: 'A crank that works loose ruins its arm and can come off.',
  },
  barClamp: {
    name: 'Bar clamp',
    task: 'Tighten its bolts evenly, the lower ones too; see that the bars do not turn under your weight.',
    leave: 'It works loose at its lower bolts: the bars roll forward, and the reach grows unnoticed.',
  },
  posts: {
    name: 'Posts and slides',
    task: 'Draw them out, wipe them, grease thinly, and look for the insertion mark.',
    leave: 'Sweat seizes them; then no number can be set, and drawing them takes a workshop.',
  },
  saddle: {
    name: 'Saddle',
    task: 'Look for cracks in its cover and rails; tighten its clamp; sight along it.',
    leave: 'A twisted or tipped saddle loads one side, and riders complain without knowing of what.',
  },
  seatPost: { name: 'Seat post', task: 'Replaced where its holes have worn oval.', leave: 'Worn holes read low.' },
  bars: { name: 'Bars or stem', task: 'Replaced where they are bent or worn.', leave: 'Bent bars turn the shoulders.' },
  pedals: {
    name: 'Pedals',
    task: 'Tighten them (left thread on the left) and turn each by hand: no play, no grinding.',
    leave: 'A pedal that comes off under load throws its rider.',
  },
  cleatPlates: {
    name: 'Cleat side of the pedals',
    task: 'Clean, set the release, and look for wear where the cleat clicks in.',
    leave: 'A worn plate lets a foot go at speed, or does not let it go.',
  },
  straps: {
    name: 'Straps and cages',
    task: 'Look for tears at the buckle; replace what is frayed.',
    leave: 'A strap that tears under load lets the foot fly off.',
  },
  cranks: {
    name: 'Cranks',
    task: 'Replaced where the pedal’s thread is worn.',
    leave: 'A stripped thread loses a pedal.',
  },
  bearings: {
    name: 'Bearings and drive',
    task: 'Turn cranks and wheel by hand and listen; belt or chain tension by the maker’s manual.',
    leave: 'A bearing that fails stops a bike for weeks.',
  },
  brake: {
    name: 'Brake and load',
    task: 'Try the push stop at speed without a rider; look at the pad.',
    leave: 'On a direct drive it is the only way to stop the wheel.',
  },
})

/** "every 30 days or 60 rides" */
export function formatInterval({ days, rides }: CareInterval): string {
  const parts = [days && `${days} days`, rides && `${rides} rides`].filter(Boolean)
  return parts.length > 0 ? `every ${parts.join(' or ')}` : 'when it is worn'
}

/** "due since 3 Dec", "due for 12 rides", "in 9 rides", "good until 11 Dec", "never seen to". */
export function formatCareState(state: CareState, timeZone: string): string {
  if (state.outcome === 'never') return 'not seen to yet'
  const { outcome, by, dueAtMs, ridesLeft } = state
  if (by === 'rides' && ridesLeft !== null) {
    const count = `${Math.abs(ridesLeft)} ${Math.abs(ridesLeft) === 1 ? 'ride' : 'rides'}`
    return outcome === 'due' ? (ridesLeft === 0 ? 'due now' : `due for ${count}`) : `in ${count}`
  }
  const day =
    dueAtMs === null
      ? ''
      : new Intl.DateTimeFormat('en-GB', { timeZone, day: 'numeric', month: 'short' }).format(dueAtMs)
  return outcome === 'due' ? `due since ${day}` : `good until ${day}`
}

export const CARE_DEED_TEXT: Readonly<Record<CareDeed, string>> = { done: 'seen to', replaced: 'replaced' }

/** What a new part asks for now, or null where it changes nothing that was measured. */
export function formatOpened(part: CarePart): string | null {
  const opened = OPENED_BY[part]
  if (!opened) return null
  const { name } = CARE_TEXT[part]
  if (opened.includes('tape'))
    return (
      `${name} replaced: what the tape said of this bike counts no longer. Lay it again` +
      `${opened.includes('tilt') ? ', and the board across the saddle' : ''}; until then it is taken as its type.`
    )
  return (
    `${name} replaced: measure pedal axle to surface again where the new ones differ, ` +
    'and look at the next riders’ knees.'
  )
}
