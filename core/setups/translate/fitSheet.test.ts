import { contactPoints } from '../../bikes/bike/contactPoints'
import { HOLES_BIKE } from '../../testing/meanRider'
import { lengthsFromSheet, SADDLE_PLACES, sheetDoubts, type FitSheet } from './fitSheet'

const { seat, nose, grip, lengths } = contactPoints(HOLES_BIKE, undefined, { seatHeight: 160 })
const { noseAheadMm, lengthMm } = HOLES_BIKE.saddle
/** The same bike as each convention would write it down. */
function sheet(setbackFrom: FitSheet['setbackFrom'], reachFrom: FitSheet['reachFrom']): FitSheet {
  const place = { nose: nose.xMm, middle: nose.xMm - lengthMm / 2, seatPoint: seat.xMm }
  return {
    saddleHeightMm: lengths.saddleHeightMm,
    setbackMm: -place[setbackFrom],
    setbackFrom,
    reachMm: grip.xMm - place[reachFrom],
    reachFrom,
    stackMm: lengths.stackMm,
    crankMm: 170,
    noseAheadMm,
    saddleLengthMm: lengthMm,
  }
}

test('nose, middle or seat point: whatever a sheet measures from, the bike is the same', () => {
  for (const setbackFrom of SADDLE_PLACES)
    for (const reachFrom of SADDLE_PLACES) {
      const read = lengthsFromSheet(sheet(setbackFrom, reachFrom))
      expect(read.setbackMm).toBeCloseTo(lengths.setbackMm, 9)
      expect(read.reachMm).toBeCloseTo(lengths.reachMm, 9)
    }
  // Conventions lie up to some 130 mm apart (trade notes): that is why it is asked.
  expect(sheet('nose', 'seatPoint').reachMm - sheet('nose', 'nose').reachMm).toBe(150)
})

test('inches and centimetres for millimetres need a confirmation, with what they would be; the rest does not', () => {
  const good = sheet('nose', 'seatPoint')
  expect(sheetDoubts(good)).toEqual([])
  expect(sheetDoubts({ ...good, saddleHeightMm: 72 })).toEqual([
    { length: 'saddleHeightMm', mm: 72, meantMm: 720, unit: 'cm' },
  ])
  const inches = sheetDoubts({ ...good, saddleHeightMm: 28.5, stackMm: 24 })
  expect(inches.map(({ unit }) => unit)).toEqual(['in', 'in'])
  expect(inches[0].meantMm).toBeCloseTo(723.9, 6)
  expect(sheetDoubts({ ...good, crankMm: 17.5 })).toEqual([{ length: 'crankMm', mm: 17.5, meantMm: 175, unit: 'cm' }])
  expect(sheetDoubts({ ...good, stackMm: 5000 })).toEqual([{ length: 'stackMm', mm: 5000, meantMm: null }])
})
