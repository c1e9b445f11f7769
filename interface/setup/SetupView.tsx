'use client'
import { CloseOutlined, UndoOutlined } from '@ant-design/icons'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Bike, BikeType } from '@/core/bike/bike'
import type { AxisName, Label, Marks } from '@/core/conventions'
import { LANDMARKS_AT_MARK, type LandmarkAtMark } from '@/core/evidence/landmarks'
import { LANDMARK_NAME, type CheckName } from '@/core/messages/checks'
import type { MisSetRequest } from '@/core/operations/misSet'
import type { Costs } from '@/core/recommend/questionCosts'
import type { Purpose } from '@/core/register/entry'
import type { EarlierSetup } from '@/core/recommend/riderHistory'
import type { RecommendRequest } from '@/core/recommend/request'
import { latestAnswer, withPregnancy } from '@/core/evidence/standingAnswers'
import type { School } from '@/core/school/school'
import { asSentence } from '@/core/messages/refusals'
import { BikeDrawing } from '../drawing/BikeDrawing'
import { SideView } from '../drawing/SideView'
import { StopBanner } from '../shared/StopMark'
import { Shortcuts, type ShortcutKeys } from '../shared/Shortcuts'
import { LightSwitch } from '../shared/LightSwitch'
import { useUnitSystem } from '../shared/DevicePreferences'
import { useRecommendation } from '../shared/useRecommendation'
import { troubleLine } from '../outbox/trouble'
import { Finder } from '../finder/Finder'
import { OutboxStatus } from '../outbox/OutboxStatus'
import { useOutbox } from '../outbox/OutboxProvider'
import { command } from '../commands/command'
import { checksOfStep, openingCheck } from './checksOfStep'
import { relocateReadings } from './misSet'
import { StepPanel } from './StepPanel'
import {
  hasAllMarks,
  plumbCheckedSinceSet,
  latestSinceSet,
  marksAfter,
  marksWithBars,
  resumeStep,
  currentMarks,
  STEP_NAME,
  STEPS,
  wasSet,
  type Row,
  type Step,
} from './flow'
import { Scales } from './Scales'
import styles from './setupView.module.css'
import type { PreviousNumbers } from './stepPanelProps'
import { useKeyboardWay } from './useKeyboardWay'
import { useMisSet } from './useMisSet'
import { useSetupRows } from './useSetupRows'

type Props = Readonly<{
  setupId: string
  member: Readonly<{ id: string; name: string }>
  bike: Readonly<{
    id: string
    number: number
    machineCalibration: Bike
    type: BikeType
    landmarks: readonly School['startLandmark'][]
  }>
  /** The school this set-up goes by, and what of it is its own. */
  school: School
  ownSchool: Partial<School>
  /** Seconds a check takes here. */
  costs: Costs
  /** What this studio's own set-ups teach, in place of the published proportions. */
  prior: NonNullable<RecommendRequest['prior']>
  /** How the eye strays that looks here. */
  observer: RecommendRequest['observer']
  /** Earlier set-ups of this rider, on any type. */
  history: readonly EarlierSetup[]
  /** The numbers they keep for other types. */
  elsewhere: NonNullable<MisSetRequest['elsewhere']>
  /** The studio's other types, of which one is offered where this bike ends. */
  otherTypes: readonly BikeType[]
  /** The rider's saved numbers on this type, if any. */
  previous: PreviousNumbers | null
  /** What is known of the rider: an open red flag, complaints, trials, health, another seat; null once saved. */
  about: Readonly<{ stop: Readonly<{ why: string; referral: string }> | null; lines: readonly string[] }> | null
  /** The rider knows the numbers: they are tapped, and nothing is asked. */
  told: boolean
  /** Where one goes when it is left or saved: the rider's page, or the floor it was begun from. */
  back: string
  /** An angle gauge is connected. */
  gauge: boolean
  stored: readonly Row[]
  finished: boolean
}>

const SETUP_KEYS: ShortcutKeys = [
  ['Enter', 'gives the answer in focus, or goes on'],
  ['Tab', 'to the next answer'],
  ['Arrows', 'along a scale or a slider'],
  ['0 to 9', 'type a reading on its slider, Enter keeps it'],
  ['/', 'find a rider’s numbers'],
  ['?', 'these keys'],
]

/** One rider at one bike: what to do next, the drawing, the bike's own scales; every tap is kept. */
export function SetupView({
  setupId,
  member,
  bike,
  school,
  ownSchool,
  costs,
  prior,
  observer,
  history,
  elsewhere,
  otherTypes,
  previous,
  about,
  told,
  back,
  gauge,
  stored,
  finished,
}: Props) {
  const router = useRouter()
  const { message } = App.useApp()
  const { offline, noRoom, fragile, settled } = useOutbox()
  const {
    rows,
    pending,
    finishedElsewhere,
    add,
    replace,
    replaceAll,
    undo: takeBack,
    save,
  } = useSetupRows(setupId, stored)
  const [step, setStep] = useState<Step>(() => (told ? 'numbers' : resumeStep(stored, previous !== null)))
  const offered = LANDMARKS_AT_MARK.filter((name) => bike.landmarks.includes(name))
  const [landmark, setLandmark] = useState<LandmarkAtMark>(
    offered.find((name) => name === school.startLandmark) ?? offered[0] ?? 'hipCrest',
  )
  const [chosen, setChosen] = useState<CheckName | null>(null)
  const checks = checksOfStep(step, { school, bikeType: bike.type, returning: previous !== null, gauge })
  const check = chosen && checks.includes(chosen) ? chosen : (openingCheck(checks, rows) ?? 'rider')
  const [saving, setSaving] = useState(false)
  const [moving, setMoving] = useState(false)
  const refusals = pending.filter((e) => e.state === 'refused')
  const done = finished || finishedElsewhere

  const { shown: lengths } = useUnitSystem()
  const answered = latestAnswer(history, 'rider')
  const answeredBefore = answered && { ...answered, row: withPregnancy(answered.row, history) }
  const request = useMemo<RecommendRequest>(
    () => ({
      bikeType: bike.type,
      bike: bike.machineCalibration,
      school,
      // A wish that stands was carried into this set-up: it is not counted once more for each earlier one.
      history: history.map((h) => ({ ...h, evidence: h.evidence.filter(({ kind }) => kind !== 'wish') })),
      otherTypes,
      costs,
      prior,
      observer,
      evidence: rows.map((r) => r.row),
      lengths,
    }),
    [bike, school, history, otherTypes, costs, prior, observer, rows, lengths],
  )
  const { answer, working, trouble } = useRecommendation(request)

  const set = wasSet(rows)
  const stand = useMemo<Marks>(() => (set ? currentMarks(rows) : {}), [rows, set])
  const shown = useMemo<Marks>(() => ({ ...(answer && !told ? answer.marks : {}), ...stand }), [answer, stand, told])
  const knownOf = useMemo(
    () => ({ bikeType: bike.type, bike: bike.machineCalibration, history, elsewhere, school, observer, prior }),
    [bike, history, elsewhere, school, observer, prior],
  )
  const misSet = useMisSet(knownOf, rows, stand, working)
  const wanted = !answer
    ? {}
    : step === 'bars'
      ? answer.next.forReach
        ? marksAfter(answer)
        : marksWithBars(answer, set || told ? stand : shown)
      : step === 'numbers'
        ? shown
        : !set || answer.next.kind !== 'stop'
          ? marksAfter(answer)
          : {}

  function tap(axis: AxisName, label: Label) {
    if (step === 'beside' && !set && axis === 'seatHeight') {
      const before = rows.findLast(({ row }) => row.kind === 'landmarkAtMark')
      return replace(before, { kind: 'landmarkAtMark', landmark, at: { seatHeight: label } })
    }
    // Only the axis that was moved: another page may have moved the others meanwhile.
    add({ kind: 'set', at: set || told ? { [axis]: label } : { ...shown, [axis]: label } })
  }

  function moveLooks(truly: Marks) {
    replaceAll(relocateReadings(rows, truly))
    message.info('What was seen counts there now. Look once more.', 3)
  }

  function undo() {
    takeBack()
    message.info('Taken back.', 1.5)
  }

  const page = useRef<HTMLDivElement>(null)
  useKeyboardWay(page, { step, answers: rows.length, working })
  const here = useRef(true)
  useEffect(() => {
    here.current = true
    return () => void (here.current = false)
  }, [])

  const [purpose, setPurpose] = useState<Purpose>('usual')
  async function finish() {
    setSaving(true)
    const id = crypto.randomUUID()
    await save(id, shown, purpose)
    const end = await settled(id)
    if (!here.current) return
    if (end === 'sent') return router.push(back)
    setSaving(false)
  }

  async function goOn() {
    setMoving(true)
    try {
      const started = await command('setups.continueSetup', {
        setupId,
        rows: rows.map(({ row }) => ({ id: crypto.randomUUID(), row })),
      })
      if (started.outcome === 'kept') return router.push(`/set-up/${started.setupId}`)
      message.error(asSentence(started.say), 6)
    } catch {
      message.error('The studio’s server cannot be reached. Everything is still here; try again.', 6)
    }
    setMoving(false)
  }

  const show = step === 'cranks' ? 'plumb' : step === 'bars' ? 'bars' : step === 'numbers' ? 'nothing' : 'knee'
  const angleRead = latestSinceSet(rows, 'kneeAngle')?.row
  const plumbRead = latestSinceSet(rows, 'plumb')?.row
  return (
    <div className={styles.page} ref={page}>
      <Shortcuts keys={SETUP_KEYS} />
      <header className={styles.bar}>
        <div className={styles.who}>
          <h1>{member.name}</h1>
          <p>
            bike {bike.number} · {bike.type.name}
          </p>
        </div>
        <nav className={styles.steps} aria-label="Steps">
          {STEPS.map((name) => (
            <button
              key={name}
              type="button"
              aria-current={name === step ? 'step' : undefined}
              className={styles.step}
              onClick={() => setStep(name)}
            >
              {STEP_NAME[name]}
            </button>
          ))}
        </nav>
        <div className={styles.tools}>
          <Button
            type="text"
            icon={<UndoOutlined />}
            onClick={undo}
            disabled={rows.length === 0 || done}
            aria-label="Undo"
            title="Undo"
          />
          <Finder />
          <OutboxStatus />
          <LightSwitch />
          <Button
            type="text"
            icon={<CloseOutlined />}
            href={back}
            aria-label="Leave; everything is kept"
            title="Leave; everything is kept"
          />
        </div>
      </header>
      <div>
        {about?.stop && (
          <StopBanner why={about.stop.why} referral={about.stop.referral} href={`/riders/${member.id}/reasons`} />
        )}
      </div>
      <main className={styles.stage}>
        <div className={styles.drawing}>
          {about && about.lines.length > 0 && (
            <ul className={styles.about} aria-label="Known of this rider">
              {about.lines.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          )}
          {answer ? (
            <SideView
              lengths={lengths}
              bikeType={bike.type}
              bike={bike.machineCalibration}
              marks={step === 'bars' ? { ...shown, ...marksWithBars(answer, stand) } : shown}
              rider={answer.belief.rider}
              show={show}
              knee={
                angleRead?.kind === 'kneeAngle'
                  ? { deg: angleRead.deg, spreadDeg: 0 }
                  : { deg: answer.belief.kneeFlexionDeg.mean, spreadDeg: answer.belief.kneeFlexionDeg.sd }
              }
              plumbMm={plumbRead?.kind === 'plumb' ? plumbRead.mm : answer.belief.plumbOffsetMm.mean}
              windowText={`${school.kneeWindowDeg[0]} to ${school.kneeWindowDeg[1]} wanted`}
            />
          ) : (
            <>
              {trouble && <p className={styles.wait}>{trouble}</p>}
              <BikeDrawing bikeType={bike.type} bike={bike.machineCalibration} marks={stand} shown={lengths} />
            </>
          )}
        </div>
        <Scales
          lengths={lengths}
          bikeType={bike.type}
          stand={stand}
          shown={shown}
          wanted={wanted}
          answer={answer}
          step={step}
          set={set}
          found={step === 'beside' ? foundAt(rows) : undefined}
          plumbRead={plumbCheckedSinceSet(rows)}
          mayTap={(axis) => !done && (set || (step === 'beside' ? axis === 'seatHeight' : step !== 'talk'))}
          onTap={tap}
        />
        <StepPanel
          setupId={setupId}
          ownSchool={ownSchool}
          step={step}
          check={check}
          checks={checks}
          rows={rows}
          previous={previous}
          answeredBefore={answeredBefore}
          answer={answer}
          working={working}
          bikeType={bike.type}
          school={school}
          set={set}
          shown={shown}
          landmark={landmark}
          landmarks={offered}
          finished={done}
          busy={saving && !offline && !pending.some((e) => e.state === 'signedOut')}
          canSave={hasAllMarks(bike.type, told ? stand : shown) && !saving}
          trouble={trouble ?? troubleLine(pending, { offline, noRoom, fragile })}
          onGoOn={!finished && (finishedElsewhere || refusals.some((e) => e.code === 'finished')) ? goOn : undefined}
          moving={moving}
          onCheck={setChosen}
          onLandmark={setLandmark}
          onAdd={add}
          onReplace={replace}
          misSet={misSet}
          bikeId={bike.id}
          onTakenAt={moveLooks}
          onStep={setStep}
          purpose={purpose}
          onPurpose={setPurpose}
          onFinish={finish}
        />
      </main>
    </div>
  )
}

/** The mark of the latest landmark, with the landmark's name. */
function foundAt(rows: readonly Row[]): Readonly<{ label: Label; text: string }> | undefined {
  const row = rows.findLast(({ row: one }) => one.kind === 'landmarkAtMark')?.row
  const label = row?.kind === 'landmarkAtMark' ? row.at?.seatHeight : undefined
  return row?.kind === 'landmarkAtMark' && label !== undefined
    ? { label, text: `${LANDMARK_NAME[row.landmark].toLowerCase()} here` }
    : undefined
}
