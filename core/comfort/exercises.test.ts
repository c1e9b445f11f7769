import { SIGNS } from '../classes/watch/signs'
import { CAUSE_TABLE } from './model/causeTable'
import { exerciseNamed, EXERCISES } from './exercises'

test('everything the tables name to do off the bike is drawn, and everything drawn is named there', () => {
  const named = [...CAUSE_TABLE.causes.map(({ offBike }) => offBike), ...SIGNS.map(({ strength }) => strength)].filter(
    (words) => words !== null,
  )
  expect(named.length).toBeGreaterThan(5)
  expect(named.filter((words) => exerciseNamed(words) === undefined)).toEqual([])
  expect(EXERCISES.filter((one) => !named.includes(one.named))).toEqual([])
})

test('every pose lies within its field and stands on its ground', () => {
  for (const { name, drawn } of EXERCISES)
    for (const { from, to } of drawn)
      for (const pose of [to, ...(from ? [from] : [])]) {
        const points = [...pose.limbs.flat(), ...(pose.head ? [pose.head] : []), ...(pose.props?.flat() ?? [])]
        for (const [x, y] of points) {
          expect([name, x >= 8 && x <= 192]).toEqual([name, true])
          expect([name, y >= 8 && y <= 112]).toEqual([name, true])
        }
        if (pose === to) expect(Math.max(...points.map(([, y]) => y))).toBeGreaterThan(100)
      }
})
