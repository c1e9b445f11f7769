import { BLOCKS } from '@/scripts/netloftHall'
import { formatPlanFault } from '../../messages/classes/watch'
import { PLAN_COLUMNS, planRows, readPlanRows } from './planFile'

const read = (...lines: string[]) => readPlanRows(lines.map((line) => line.split(',')))

test('a plan as a list comes back as it was, but for the names of its blocks’ ids', () => {
  const { blocks, faults } = readPlanRows([[...PLAN_COLUMNS], ...planRows(BLOCKS)])
  expect(faults).toEqual([])
  expect(blocks.map(({ id: _, ...block }) => block)).toEqual(BLOCKS.map(({ id: _, ...block }) => block))
})

test('beats serve where turns are left empty; what is left out is usual; columns may come in any order', () => {
  const { blocks } = read('Beats,minutes,Name', '106,5,Slow')
  expect(blocks).toEqual([
    {
      id: 'line-2',
      name: 'Slow',
      minutes: 5,
      rpm: 53,
      posture: 'seated',
      hands: 1,
      effort: 'steady',
      spine: 'long',
    },
  ])
})

test('turns and beats that do not go together are a fault with its own sentence', () => {
  const { blocks, faults } = read('name,minutes,turns,beats', 'Good,5,53,106', 'Off,5,90,170', 'Odd,5,90,many')
  expect(blocks.map(({ name }) => name)).toEqual(['Good'])
  expect(faults).toEqual([
    { line: 3, column: 'beats', text: '2 × 90 ≠ 170' },
    { line: 4, column: 'beats', text: 'many' },
  ])
  expect(formatPlanFault(faults[0])).toBe(
    'Line 3: turns and beats do not go together (2 × 90 ≠ 170); the block was left out.',
  )
})

test('a line with something unreadable is reported by line and column and left out, the others are taken', () => {
  const { blocks, faults } = read(
    'name,minutes,turns,posture,effort,move',
    'Good,5,90,STANDING,hard,',
    'No minutes,,90,seated,easy,',
    'Too fast,5,400,seated,easy,',
    'Lying,5,90,lying,easy,',
    'Flying,5,90,seated,easy,flying',
  )
  expect(blocks.map(({ name, posture }) => [name, posture])).toEqual([['Good', 'standing']])
  expect(faults.map(({ line, column }) => [line, column])).toEqual([
    [3, 'minutes'],
    [4, 'turns'],
    [5, 'posture'],
    [6, 'move'],
  ])
  expect(readPlanRows([])).toEqual({ blocks: [], faults: [] })
})
