import type { UnitSystem } from '../../base/length'
import type { SADDLE_SHAPES, TILT_ACROSS } from '../../bikes/bike/bike'
import type { PADDINGS, RELIEFS, SaddleModel } from '../../bikes/saddles/saddle'
import { formatLength } from '../words/phrases'

type Words<V extends readonly string[]> = Readonly<Record<V[number], string>>

export const SHAPE_TEXT: Words<typeof SADDLE_SHAPES> = {
  flat: 'flat',
  tailKick: 'slight tail kick',
  curved: 'curved',
}
export const RELIEF_TEXT: Words<typeof RELIEFS> = {
  none: 'no relief',
  channel: 'a channel',
  cutOut: 'a cut-out',
  split: 'split',
}
export const PADDING_TEXT: Words<typeof PADDINGS> = { firm: 'firm', medium: 'medium', soft: 'soft' }
export const BOARD_TEXT: Words<typeof TILT_ACROSS> = {
  highestPoints: 'its two highest points',
  frontHalf: 'its front half',
}

/** "160 mm wide, curved, a cut-out, soft" */
export const formatSaddle = ({ widthMm, shape, relief, padding }: SaddleModel, shown: UnitSystem): string =>
  `${formatLength(widthMm, shown)} wide, ${SHAPE_TEXT[shape]}, ${RELIEF_TEXT[relief]}, ${PADDING_TEXT[padding]}`

/** "Bike 12 has a wider one: Broad, 170 mm where this is 150 mm." */
export function formatWider(
  own: Readonly<{ widthMm: number }>,
  wider: readonly Readonly<{ number: number; name: string; widthMm: number }>[],
): string | null {
  const [first] = wider
  if (!first) return null
  const alike = wider.filter(({ name }) => name === first.name).map(({ number }) => number)
  const bikes = alike.length === 1 ? `Bike ${alike[0]} has` : `Bikes ${alike.join(', ')} have`
  const here = formatLength(own.widthMm)
  return `${bikes} a wider one: ${first.name}, ${formatLength(first.widthMm)} where this is ${here}.`
}
