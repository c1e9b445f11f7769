import type { AxisName, Label } from '@/core/base/conventions'

/** One scale of the machine, its marks as drawn. */
export type AloneScale = Readonly<{
  axis: AxisName
  title: string
  /** How it is set, standing beside the bike. */
  how: string
  drawnAs: 'holes' | 'ticks'
  marks: readonly Readonly<{ label: Label; text: string }>[]
}>
