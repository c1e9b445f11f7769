'use client'
import { App } from 'antd'
import { useMemo, useRef, useState } from 'react'
import type { AxisName, Label, Marks } from '@/core/base/conventions'
import { LANDMARK_NAME, type CheckName } from '@/core/messages/setups/checks'
import { LANDMARKS_AT_MARK, type LandmarkAtMark } from '@/core/riders/evidence/definition/landmarks'
import { latestAnswer, withPregnancy } from '@/core/riders/evidence/standingAnswers'
import { Shortcuts, type ShortcutKeys } from '../frame/Shortcuts'
import { StopBanner } from '../kit/StopMark'
import { useOutbox } from '../offline/OutboxProvider'
import { troubleLine } from '../offline/trouble'
import { relocateReadings } from './misSet/misSet'
import { Scales } from './scales/Scales'
import { SetupDrawing } from './SetupDrawing'
import { SetupHead } from './SetupHead'
import styles from './setupView.module.css'
import type { SetupViewProps } from './setupViewProps'
import { StepPanel } from './panel/StepPanel'
import { checksOfStep, openingCheck } from './steps/checksOfStep'
import { hasAllMarks, plumbCheckedSinceSet, resumeStep, type Row, type Step } from './steps/flow'
import type { SetupContext } from './steps/stepPanelProps'
import { useFinish } from './useFinish'
import { useKeyboardWay } from './useKeyboardWay'
import { useSetupAnswer } from './useSetupAnswer'
import { useSetupRows } from './rows/useSetupRows'

const SETUP_KEYS: ShortcutKeys = [
  ['Enter', 'gives the answer in focus, or goes on'],
  ['Tab', 'to the next answer'],
  ['Arrows', 'along a scale or a slider'],
  ['0 to 9', 'type a reading on its slider, Enter keeps it'],
  ['/', 'find a rider’s numbers'],
  ['?', 'these keys'],
]

/** One rider at one bike: what to do next, the drawing, the bike's own scales; every tap is stored. */
export function SetupView(props: SetupViewProps) {
  const { setupId, member, bike, school, previous, about, entersKnownNumbers, back, gauge, stored, finished } = props
  const { message } = App.useApp()
  const { offline, noRoom, fragile } = useOutbox()
  const { rows, pending, finishedElsewhere, add, replace, replaceAll, undo, save } = useSetupRows(setupId, stored)
  const [step, setStep] = useState<Step>(() => (entersKnownNumbers ? 'numbers' : resumeStep(stored, previous !== null)))
  const context = useSetupContext(props)
  const [landmark, setLandmark] = useState<LandmarkAtMark>(
    context.landmarks.find((name) => name === school.startLandmark) ?? context.landmarks[0] ?? 'hipCrest',
  )
  const [chosen, setChosen] = useState<CheckName | null>(null)
  const checks = checksOfStep(step, { school, bikeType: bike.type, returning: previous !== null, gauge })
  const check = chosen && checks.includes(chosen) ? chosen : (openingCheck(checks, rows) ?? 'rider')
  const done = finished || finishedElsewhere
  const wasSavedElsewhere = finishedElsewhere || pending.some((e) => e.state === 'refused' && e.code === 'finished')

  const {
    answer,
    working,
    trouble,
    misSet,
    set,
    current,
    shown,
    wanted: target,
    lengths,
  } = useSetupAnswer(props, rows, step)
  const { purpose, setPurpose, saving, moving, finish, goOn } = useFinish(setupId, rows, save, back)

  function tap(axis: AxisName, label: Label) {
    if (step === 'beside' && !set && axis === 'seatHeight') {
      const before = rows.findLast(({ row }) => row.kind === 'landmarkAtMark')
      return replace(before, { kind: 'landmarkAtMark', landmark, at: { seatHeight: label } })
    }
    // Only the axis that was moved: another page may have moved the others meanwhile.
    add({ kind: 'set', at: set || entersKnownNumbers ? { [axis]: label } : { ...shown, [axis]: label } })
  }

  function relocate(truly: Marks) {
    replaceAll(relocateReadings(rows, truly))
    message.info('What was seen counts there now. Look once more.', 3)
  }

  function takeBack() {
    undo()
    message.info('Taken back.', 1.5)
  }

  const page = useRef<HTMLDivElement>(null)
  useKeyboardWay(page, { step, answers: rows.length, working })
  return (
    <div className={styles.page} ref={page}>
      <Shortcuts keys={SETUP_KEYS} />
      <SetupHead
        member={member}
        bike={bike}
        back={back}
        step={step}
        onStep={setStep}
        onUndo={rows.length === 0 || done ? undefined : takeBack}
      />
      <div>{about?.stop && <StopBanner {...about.stop} />}</div>
      <main className={styles.stage}>
        <SetupDrawing
          bike={bike}
          school={school}
          about={about}
          member={member}
          rows={rows}
          step={step}
          answer={answer}
          trouble={trouble}
          current={current}
          shown={shown}
        />
        <Scales
          lengths={lengths}
          bikeType={bike.type}
          current={current}
          shown={shown}
          target={target}
          answer={answer}
          step={step}
          set={set}
          found={step === 'beside' ? foundAt(rows) : undefined}
          plumbRead={plumbCheckedSinceSet(rows)}
          mayTap={(axis) => !done && (set || (step === 'beside' ? axis === 'seatHeight' : step !== 'talk'))}
          onTap={tap}
        />
        <StepPanel
          step={step}
          check={check}
          checks={checks}
          rows={rows}
          answer={answer}
          working={working}
          set={set}
          shown={shown}
          landmark={landmark}
          trouble={trouble ?? troubleLine(pending, { offline, noRoom, fragile })}
          misSet={misSet}
          context={context}
          saving={{
            finished: done,
            busy: saving && !offline && !pending.some((e) => e.state === 'signedOut'),
            canSave: hasAllMarks(bike.type, entersKnownNumbers ? current : shown) && !saving,
            moving,
            purpose,
          }}
          actions={{
            onCheck: setChosen,
            onLandmark: setLandmark,
            onAdd: add,
            onReplace: replace,
            onTakenAt: relocate,
            onStep: setStep,
            onPurpose: setPurpose,
            onFinish: () => void finish(shown, answer),
            onGoOn: !finished && wasSavedElsewhere ? () => void goOn() : undefined,
          }}
        />
      </main>
    </div>
  )
}

/** What does not change while the page is open. */
function useSetupContext(props: SetupViewProps): SetupContext {
  const { setupId, member, bike, school, ownSchool, previous, history, limits, limitTexts, consent, today } = props
  const shorterLeg = limits.shorterLeg?.side ?? null
  return useMemo(() => {
    const answered = latestAnswer(history, 'rider')
    return {
      setupId,
      memberId: member.id,
      today,
      shorterLeg,
      limitTexts,
      consent: { ...consent, name: member.name },
      bikeId: bike.id,
      bikeType: bike.type,
      school,
      ownSchool,
      previous,
      answeredBefore: answered && { ...answered, row: withPregnancy(answered.row, history) },
      landmarks: LANDMARKS_AT_MARK.filter((name) => bike.landmarks.includes(name)),
    }
  }, [setupId, member, today, shorterLeg, limitTexts, consent, bike, school, ownSchool, previous, history])
}

/** The mark of the latest landmark, with the landmark's name. */
function foundAt(rows: readonly Row[]): Readonly<{ label: Label; text: string }> | undefined {
  const row = rows.findLast(({ row: one }) => one.kind === 'landmarkAtMark')?.row
  const label = row?.kind === 'landmarkAtMark' ? row.at?.seatHeight : undefined
  return row?.kind === 'landmarkAtMark' && label !== undefined
    ? { label, text: `${LANDMARK_NAME[row.landmark].toLowerCase()} here` }
    : undefined
}
