/** A card of getting on or off: what is done, and the sentence to say. The picture has the card's name. */
export type MountCard = Readonly<{ name: string; text: string; say: string }>

/** Getting on (common practice, no source). */
export const GETTING_ON: readonly MountCard[] = [
  {
    name: 'straddle',
    text: 'Straddle the frame, both feet on the floor.',
    say: 'One foot each side, hold the bars.',
  },
  { name: 'stepUp', text: 'Step onto the pedal that is down.', say: 'Stand on the low pedal first.' },
  { name: 'sit', text: 'Sit on the wide part of the saddle.', say: 'Back until both sit bones rest.' },
  {
    name: 'foot',
    text: 'The ball of the foot over the pedal’s axle; strap snug, or click in.',
    say: 'Widest part of the shoe over the middle; laces tucked in.',
  },
]

/** Getting off (common practice, no source). */
export const GETTING_OFF: readonly MountCard[] = [
  {
    name: 'slow',
    text: 'Turn the load up until the wheel is slow; both feet stay on.',
    say: 'The wheel turns your feet: slow it before you loosen anything.',
  },
  {
    name: 'forward',
    text: 'Stand on the low pedal, and come forward off the saddle.',
    say: 'Stand up and forward. The seat is high for your legs, not for the floor.',
  },
  {
    name: 'loosen',
    text: 'Loosen the foot that comes out first.',
    say: 'One foot free, the other still holds you.',
  },
  { name: 'stepDown', text: 'Step down on the low side.', say: 'Down to the floor, then the other foot.' },
]

/** Why somebody new need not sit low. */
export const REACH_THE_FLOOR =
  'At the right height the floor is out of reach while you sit. That is as it should be: you come forward off the ' +
  'saddle first.'
