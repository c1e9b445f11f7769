'use client'
import { CloseOutlined, UndoOutlined } from '@ant-design/icons'
import { App, Button } from 'antd'
import { useRouter } from 'next/navigation'
import { useCallback, useMemo, useState } from 'react'
import type { Bike, BikeType } from '@/core/bike/bike'
import type { AxisName, Label, Marks } from '@/core/conventions'
import type { Landmark } from '@/core/evidence/evidence'
import type { FitRequest } from '@/core/recommend/request'
import type { School } from '@/core/school/school'
import { SideView } from '../drawing/SideView'
import { LightSwitch } from '../shared/LightSwitch'
import { useLengths } from '../shared/Providers'
import { useRecommendation } from '../shared/useRecommendation'
import { save } from './actions'
import { Dock } from './Dock'
import { complete, lookOf, marksAfter, marksWithBars, resumeAt, standing, STEP_NAME, STEPS, wasSet, type Row, type Step } from './flow'
import { Scales } from './Scales'
import styles from './setup.module.css'
import { useRows, type Saving } from './useRows'

type Props = Readonly<{
  setupId: string
  member: Readonly<{ id: string; name: string }>
  bike: Readonly<{ number: number; own: Bike; type: BikeType; landmarks: readonly School['startLandmark'][] }>
  school: School
  stored: readonly Row[]
  finished: boolean
}>

/** Landmarks the set-up asks for beside the bike, where the type’s sheet says they are valid. */
const LANDMARKS = ['hipCrest', 'frontHipBone', 'between'] as const

const SAVING: Readonly<Record<Saving, string>> = { saved: '', saving: '', waiting: 'No network: kept on this device, sent when it is back' }

/** One rider at one bike: what to do next, the drawing, the bike's own scales; every tap is kept. */
export function SetupView({ setupId, member, bike, school, stored, finished }: Props) {
  const router = useRouter()
  const { message } = App.useApp()
  const refused = useCallback((say: string) => message.error(`Not kept: ${say}.`, 6), [message])
  const { rows, saving, add, replace, takeBack } = useRows(setupId, stored, refused)
  const [step, setStep] = useState<Step>(() => resumeAt(stored))
  const offered = LANDMARKS.filter((name) => bike.landmarks.includes(name))
  const [landmark, setLandmark] = useState<Landmark>(offered.find((name) => name === school.startLandmark) ?? offered[0] ?? 'hipCrest')
  const [busy, setBusy] = useState(false)
  const [numbersId] = useState(() => crypto.randomUUID())

  const { shown: lengths } = useLengths()
  const request = useMemo<FitRequest>(() => ({ bikeType: bike.type, bike: bike.own, school, evidence: rows.map((r) => r.row), lengths }), [bike, school, rows, lengths])
  const { answer, working, trouble } = useRecommendation(request)

  const set = wasSet(rows)
  const stand = useMemo<Marks>(() => (set ? standing(rows) : {}), [rows, set])
  const shown = useMemo<Marks>(() => ({ ...(answer ? answer.marks : {}), ...stand }), [answer, stand])
  const wanted = !answer ? {} : step === 'bars' ? marksWithBars(answer, stand) : step === 'numbers' ? {} : !set || answer.next.kind !== 'stop' ? marksAfter(answer) : {}

  function tap(axis: AxisName, label: Label) {
    if (step === 'beside' && !set && axis === 'seatHeight') {
      const before = rows.findLast(({ row }) => row.kind === 'landmarkAtMark')
      return replace(before, { kind: 'landmarkAtMark', landmark, at: { seatHeight: label } })
    }
    add({ kind: 'set', at: { ...(set ? stand : shown), [axis]: label } })
  }

  function undo() {
    const last = rows.at(-1)
    if (!last) return
    takeBack(last)
    message.info('Taken back.', 1.5)
  }

  async function finish() {
    setBusy(true)
    try {
      const kept = await save(setupId, numbersId, shown)
      if (kept.outcome === 'kept') return router.push(`/riders/${member.id}`)
      refused(kept.say)
    } catch {
      message.error('The studio’s server cannot be reached. The numbers are still here; try again.', 6)
    }
    setBusy(false)
  }

  const show = step === 'cranks' ? 'plumb' : step === 'bars' ? 'bars' : step === 'numbers' ? 'nothing' : 'knee'
  const angleRead = lookOf(rows, 'kneeAngle')?.row
  const plumbRead = lookOf(rows, 'plumb')?.row
  return (
    <div className={styles.page}>
      <header className={styles.bar}>
        <div className={styles.who}>
          <h1>{member.name}</h1>
          <p>
            bike {bike.number} · {bike.type.name}
          </p>
        </div>
        <nav className={styles.steps} aria-label="Steps">
          {STEPS.map((name) => (
            <button key={name} type="button" aria-current={name === step ? 'step' : undefined} className={styles.step} onClick={() => setStep(name)}>
              {STEP_NAME[name]}
            </button>
          ))}
        </nav>
        <div className={styles.tools}>
          <Button type="text" icon={<UndoOutlined />} onClick={undo} disabled={rows.length === 0 || finished} aria-label="Undo" title="Undo" />
          <LightSwitch />
          <Button type="text" icon={<CloseOutlined />} href={`/riders/${member.id}`} aria-label="Leave; everything is kept" title="Leave; everything is kept" />
        </div>
      </header>
      <main className={styles.stage}>
        <div className={styles.drawing}>
          {answer ? (
            <SideView
              lengths={lengths}
              bikeType={bike.type}
              bike={bike.own}
              marks={step === 'bars' ? { ...shown, ...marksWithBars(answer, stand) } : shown}
              rider={answer.belief.rider}
              show={show}
              knee={angleRead?.kind === 'kneeAngle' ? { deg: angleRead.deg, spreadDeg: 0 } : { deg: answer.belief.kneeFlexionDeg.mean, spreadDeg: answer.belief.kneeFlexionDeg.sd }}
              plumbMm={plumbRead?.kind === 'plumb' ? plumbRead.mm : answer.belief.plumbOffsetMm.mean}
              windowSaid={`${school.kneeWindowDeg[0]} to ${school.kneeWindowDeg[1]} wanted`}
            />
          ) : (
            <p className={styles.wait}>Working it out …</p>
          )}
        </div>
        <Scales lengths={lengths} bikeType={bike.type} stand={stand} shown={shown} wanted={wanted} answer={answer} step={step} set={set} mayTap={(axis) => !finished && (set || (step === 'beside' ? axis === 'seatHeight' : step !== 'talk'))} onTap={tap} />
        <Dock
          step={step}
          rows={rows}
          answer={answer}
          working={working}
          bikeType={bike.type}
          school={school}
          set={set}
          shown={shown}
          landmark={landmark}
          landmarks={offered}
          finished={finished}
          busy={busy}
          canSave={complete(bike.type, shown)}
          trouble={trouble ?? SAVING[saving]}
          onLandmark={setLandmark}
          onAdd={add}
          onReplace={replace}
          onStep={setStep}
          onFinish={finish}
        />
      </main>
    </div>
  )
}
