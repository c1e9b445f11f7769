import { EFFORTS, HAND_POSITIONS, POSTURES, SPINES, type Block } from './blocks'
import { MOVES } from './moves'

/** Columns of a plan as a list, in their order; `beats` is read where `turns` is left empty. */
export const PLAN_COLUMNS = [
  'name',
  'minutes',
  'turns',
  'beats',
  'posture',
  'hands',
  'effort',
  'spine',
  'move',
] as const

/** A plan as lines of a list, without the headings. */
export const planRows = (blocks: readonly Block[]): string[][] =>
  blocks.map(({ name, minutes, rpm, posture, hands, effort, spine, move }) => [
    name,
    String(minutes),
    String(rpm),
    String(2 * rpm),
    posture,
    String(hands),
    effort,
    spine,
    move ?? '',
  ])

/** What is wrong with a line of a plan; lines count from 1, the headings are the first. */
export type PlanFault = Readonly<{ line: number; column: (typeof PLAN_COLUMNS)[number]; text: string }>

/** Beats that differ by less are the same, rounded. */
const BEATS_OFF = 1

/**
 * A plan from the rows of a list, headings first. Unreadable lines are reported and left out; ids are made
 * of the line.
 */
export function readPlanRows(
  rows: readonly (readonly string[])[],
): Readonly<{ blocks: readonly Block[]; faults: readonly PlanFault[] }> {
  const [headings = [], ...lines] = rows
  const at = (column: string) => headings.findIndex((heading) => heading.trim().toLowerCase() === column)
  const faults: PlanFault[] = []
  const blocks = lines.flatMap((cells, i): Block[] => {
    const line = i + 2
    const cell = (column: (typeof PLAN_COLUMNS)[number]) => (cells[at(column)] ?? '').trim()
    const wrong: PlanFault[] = []
    const number = (column: 'minutes' | 'turns' | 'beats', low: number, high: number) => {
      const value = Number(cell(column).replace(',', '.'))
      if (cell(column) !== '' && value >= low && value <= high) return value
      wrong.push({ line, column, text: cell(column) })
      return low
    }
    const word = <W extends string>(column: (typeof PLAN_COLUMNS)[number], words: readonly W[], usual: W): W => {
      const text = cell(column)
      const found = text === '' ? usual : words.find((one) => one.toLowerCase() === text.toLowerCase())
      if (!found) wrong.push({ line, column, text: text })
      return found ?? usual
    }
    const rpm = cell('turns') === '' && cell('beats') !== '' ? number('beats', 60, 300) / 2 : number('turns', 30, 150)
    // One turn of one foot a beat: both, where both are given, must agree.
    const beats = cell('beats') === '' || cell('turns') === '' ? null : number('beats', 60, 300)
    if (beats !== null && wrong.length === 0 && Math.abs(beats - 2 * rpm) > BEATS_OFF)
      wrong.push({ line, column: 'beats', text: `2 × ${cell('turns')} ≠ ${cell('beats')}` })
    const block: Block = {
      id: `line-${line}`,
      name: cell('name').slice(0, 60),
      minutes: number('minutes', 0.5, 90),
      rpm,
      posture: word('posture', POSTURES, 'seated'),
      hands: Number(
        word(
          'hands',
          HAND_POSITIONS.map((hand) => String(hand) as '1' | '2' | '3'),
          '1',
        ),
      ) as Block['hands'],
      effort: word('effort', EFFORTS, 'steady'),
      spine: word('spine', SPINES, 'long'),
      ...(cell('move') !== '' && {
        move: word(
          'move',
          MOVES.map(({ move }) => move),
          MOVES[0].move,
        ),
      }),
    }
    faults.push(...wrong)
    return wrong.length > 0 ? [] : [block]
  })
  return { blocks, faults }
}
