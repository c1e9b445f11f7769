'use client'
import { Button, Modal, Segmented } from 'antd'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { assessMachineTilt, assessTilt, isSaddleStraight, wedgeTiltDeg, type TiltAcross } from '@/core/bikes/bike/tilt'
import { saddleOn } from '@/core/bikes/saddles/saddle'
import type { School } from '@/core/base/school/school'
import { parseQuantity } from '@/core/base/quantity'
import { formatTilt } from '@/core/messages/bikes/tilt'
import { LengthField } from '../../kit/LengthField'
import { command } from '../../commands/command'
import parts from '../parts.module.css'
import type { Machine } from './machine'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { useAction } from '../../commands/useAction'

/** The saddle's angle with the floor taken off, what a wedge would do, and its line over the frame. */
export function SaddleTilt({ bike, school }: { bike: Machine; school: School['tilt'] }) {
  const router = useRouter()
  const { act, busy } = useAction()
  const [tiltKey, lineKey] = [useIdempotencyKey(), useIdempotencyKey()]
  const [deg, setDeg] = useState('')
  const [floor, setFloor] = useState('0')
  const [across, setAcross] = useState<TiltAcross>(
    bike.machineCalibration.saddle?.board ?? bike.machineCalibration.tiltAcross ?? 'highestPoints',
  )
  const { shape } = saddleOn(bike.type, bike.machineCalibration)
  const [line, setLine] = useState('')
  const [closed, setClosed] = useState<'open' | 'closed'>('closed')
  const [wedge, setWedge] = useState<{ lift: string; base: string } | null>(null)
  const degrees = parseQuantity(deg, '°')
  const judged =
    degrees === null
      ? null
      : assessTilt({ deg: degrees, floorDeg: parseQuantity(floor, '°') ?? 0, across }, shape, school)
  const stored = assessMachineTilt(bike.machineCalibration, shape, school)
  const assessment = judged ?? stored
  const { sentence, because } = assessment ? formatTilt(assessment) : { sentence: 'Not measured yet.', because: [] }

  async function save() {
    const mm = parseQuantity(line, 'mm')
    if (degrees !== null) {
      const reading = { kind: 'tilt' as const, deg: degrees, floorDeg: parseQuantity(floor, '°') ?? 0, across }
      if (!(await act(() => command('bikes.addBikeReading', { bikeId: bike.id, reading }, tiltKey.idFor(reading)))))
        return
    }
    if (mm !== null) {
      const reading = { kind: 'saddleLine' as const, mm, afterClosing: closed === 'closed' }
      if (!(await act(() => command('bikes.addBikeReading', { bikeId: bike.id, reading }, lineKey.idFor(reading)))))
        return
    }
    tiltKey.forget()
    lineKey.forget()
    setDeg('')
    setLine('')
    router.refresh()
  }

  const lift = wedge && parseQuantity(wedge.lift, 'mm')
  const base = wedge && parseQuantity(wedge.base, 'mm')
  return (
    <>
      <p
        className={assessment && assessment.outcome !== 'good' ? parts.act : assessment ? parts.good : parts.quiet}
        aria-live="polite"
      >
        {sentence}
      </p>
      {because.map((reason) => (
        <p key={reason} className={parts.quiet}>
          {reason}
        </p>
      ))}
      <div className={parts.fields}>
        <LengthField title="Saddle, ° (minus is nose down)" typed={deg} onTyped={setDeg} placeholder="°" />
        <LengthField title="Floor here, °" typed={floor} onTyped={setFloor} placeholder="°" />
        <Segmented
          className={parts.wide}
          aria-label="Board across"
          value={across}
          onChange={setAcross}
          options={[
            { value: 'highestPoints', label: 'two highest points' },
            { value: 'frontHalf', label: 'front half' },
          ]}
          block
        />
        <LengthField title="Nose off the frame’s line, mm" typed={line} onTyped={setLine} placeholder="right is plus" />
        <Segmented
          className={parts.wide}
          aria-label="Saddle line sighted"
          value={closed}
          onChange={setClosed}
          options={[
            { value: 'open', label: 'before closing' },
            { value: 'closed', label: 'again after closing' },
          ]}
          block
        />
      </div>
      {parseQuantity(line, 'mm') !== null && (
        <p className={isSaddleStraight(parseQuantity(line, 'mm')!) ? parts.good : parts.act}>
          {isSaddleStraight(parseQuantity(line, 'mm')!)
            ? 'Straight.'
            : 'Off its line loads one side. Sight along it over the frame, not the stem; closing can ' +
              'pull it 2 to 3 mm, so look again after.'}
        </p>
      )}
      <div className={parts.ways}>
        <Button
          size="large"
          loading={busy}
          disabled={degrees === null && parseQuantity(line, 'mm') === null}
          onClick={save}
        >
          Keep
        </Button>
        <Button size="large" type="text" onClick={() => setWedge({ lift: '', base: '900' })}>
          A wedge or uneven foot
        </Button>
      </div>
      <Modal open={wedge !== null} onCancel={() => setWedge(null)} footer={null} title="A wedge, or an uneven foot">
        {wedge && (
          <>
            <div className={parts.fields}>
              <LengthField
                title="Lifts the front by, mm"
                typed={wedge.lift}
                onTyped={(value) => setWedge({ ...wedge, lift: value })}
              />
              <LengthField
                title="Front foot to rear foot, mm"
                typed={wedge.base}
                onTyped={(value) => setWedge({ ...wedge, base: value })}
              />
            </div>
            <p className={parts.sentence} aria-live="polite">
              {lift === null || !base || base <= 0
                ? 'Type both; a lift at the back is minus.'
                : `Turns the saddle ${Math.abs(wedgeTiltDeg(lift, base)).toFixed(1)}° nose ` +
                  `${lift >= 0 ? 'up' : 'down'}.`}
            </p>
          </>
        )}
      </Modal>
    </>
  )
}
