import type { Contrast, ContrastFigure, ContrastName } from '../../setups/show/contrast'

/** What figures beside each other are called. */
export const CONTRAST_TITLE: Readonly<Record<ContrastName, string>> = {
  height: 'Seat height',
  reach: 'Reach',
  bars: 'Bars',
  foot: 'Foot',
}
const NAME: Readonly<Record<ContrastName, Readonly<Record<ContrastFigure['side'], string>>>> = {
  height: { less: 'too low', yours: 'yours', more: 'too high' },
  reach: { less: 'too near', yours: 'yours', more: 'too far' },
  bars: { less: 'low', yours: 'yours', more: 'high' },
  foot: { less: 'level', yours: 'heel up', more: '' },
}
/** What it feels like, for the rider to notice. */
const FEELS: Readonly<Record<ContrastName, Readonly<Record<ContrastFigure['side'], string>>>> = {
  height: {
    less: 'Knees deeply bent, thighs come up high.',
    yours: 'A slight bend, never locked.',
    more: 'The leg locks, hips rock, toes reach.',
  },
  reach: {
    less: 'Cramped, elbows high.',
    yours: 'Soft elbows, shoulders low.',
    more: 'Arms straight, weight on the hands.',
  },
  bars: { less: 'The pelvis tips more.', yours: '', more: 'Easier on the back.' },
  foot: { less: 'The whole foot presses.', yours: 'As many ride by themselves.', more: '' },
}

export const formatContrastName = (name: ContrastName, side: ContrastFigure['side']): string => NAME[name][side]
export const formatContrastFeel = (name: ContrastName, side: ContrastFigure['side']): string => FEELS[name][side]

/** The angle a figure is about: "32°" of the knee, or of the trunk above level. */
export function formatContrastAngle({ name }: Pick<Contrast, 'name'>, { pose }: ContrastFigure): string {
  const deg = name === 'height' || name === 'foot' ? pose.kneeFlexionDeg : pose.trunkAngleDeg
  return `${Math.round(deg)}°`
}
export const contrastAngleOf = (name: ContrastName): string =>
  name === 'height' || name === 'foot' ? 'knee bend' : 'trunk above level'
