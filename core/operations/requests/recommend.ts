import type { BikeType } from '../../bikes/bike/bike'
import { needsMarks, latest } from '../../riders/evidence/evidence'
import type { Evidence } from '../../riders/evidence/registry'
import { REASON, type Issue } from '../../messages/words/issues'
import { formatQuestion, formatStarter, QUESTION_NAME } from '../../messages/setups/questions'
import { renderMessages } from '../../messages/setups/recommendation'
import type { QuestionValue } from '../../setups/recommend/steps/nextQuestion'
import { hasEnded, otherTypes, type OtherType } from '../../setups/recommend/otherTypes'
import { advise, type Advice } from '../../setups/recommend/recommend'
import type { RecommendRequest } from '../../setups/recommend/request/request'
import type { SetupRows } from '../../setups/recommend/history/setupReadings'
import type { Marks } from '../../base/conventions'
import { bikeIssues, bikeTypeIssues, canonicalMarks, marksIssues } from './bikeIssues'

/** `recommend`'s answer: the advice in codes and figures, with finished English beside it. */
export type Recommendation = Readonly<{
  chances: Advice['chances']
  next: Advice['next'] & Readonly<{ sentence: string; because: string[]; otherTypes?: readonly OtherType[] }>
  belief: Advice['belief']
  cautions: string[]
  /** Marks everything was computed at. */
  marks: Marks
  bars: Advice['bars'] & Readonly<{ sentence: string }>
  doubts: readonly (Advice['anomalies'][number] & Readonly<{ say: string }>)[]
  /** What is worth asking now, in one line with its reason; absent where nothing is worth its time. */
  ask?: QuestionValue & Readonly<{ sentence: string }>
  /** All questions possible now, the most valuable first. */
  questions: readonly (QuestionValue & Readonly<{ name: string }>)[]
  startRules: Advice['startRules']
  /** Marks next to each number that the rider may try alone. */
  tryAlone: Advice['tryAlone']
  /** Where this school begins newcomers low: the seat height to begin at, and after how many rides it is raised. */
  starter?: NonNullable<Advice['starter']> & Readonly<{ sentence: string }>
}>

/** `recommend`: the next best step with its chances, in figures and in words. */
export function recommend(request: RecommendRequest): Recommendation {
  const { bikeType } = request
  const evidence = canonicalRows(bikeType, request.evidence)
  const history = request.history?.map((h) => ({ ...h, evidence: canonicalRows(h.bikeType, h.evidence) }))
  const advice = advise({ ...request, evidence, ...(history && { history }) })
  const [top] = advice.questions
  const others =
    request.otherTypes && hasEnded(advice.next)
      ? otherTypes({ ...request, evidence, ...(history && { history }) }, request.otherTypes)
      : undefined
  const messages = renderMessages(bikeType, evidence, advice, { shown: request.lengths, others })
  return {
    chances: advice.chances,
    next: {
      ...advice.next,
      sentence: messages.sentence,
      because: messages.because,
      ...(others && { otherTypes: others }),
    },
    belief: advice.belief,
    cautions: messages.cautions,
    marks: advice.marks,
    bars: { ...advice.bars, sentence: messages.bars },
    doubts: advice.anomalies.map((anomaly, i) => ({ ...anomaly, say: messages.anomalies[i] })),
    ...(top && top.worthS > 0 && { ask: { ...top, sentence: formatQuestion(top) } }),
    questions: advice.questions.map((q) => ({ ...q, name: QUESTION_NAME[q.question] })),
    startRules: advice.startRules,
    tryAlone: advice.tryAlone,
    ...(advice.starter && {
      starter: { ...advice.starter, sentence: formatStarter(bikeType, advice.starter) },
    }),
  }
}

const canonicalRows = (bikeType: BikeType, rows: readonly Evidence[]): Evidence[] =>
  rows.map((row) => (row.at ? { ...row, at: canonicalMarks(bikeType, row.at) } : row))

export function recommendIssues(request: RecommendRequest): Issue[] {
  const { bikeType, bike, school, evidence, history = [], otherTypes: others = [] } = request
  const window = school?.kneeWindowDeg
  const schoolIssues =
    window && window[0] > window[1] ? [{ pointer: '/school/kneeWindowDeg', reason: REASON.windowReversed() }] : []
  return [
    ...setupIssues({ bikeType, bike, evidence }, ''),
    ...schoolIssues,
    ...history.flatMap((earlier, i) => setupIssues(earlier, `/history/${i}`)),
    ...others.flatMap((type, i) => bikeTypeIssues(type, `/otherTypes/${i}`)),
  ]
}

/** What is wrong with the bike and the rows of one set-up; with the scales wrong no label means anything. */
export function setupIssues({ bikeType, bike, evidence }: SetupRows, at: string): Issue[] {
  const scales = bikeTypeIssues(bikeType, `${at}/bikeType`)
  if (scales.length > 0) return scales
  const rows = evidence.flatMap((row, i) => [
    ...marksIssues(bikeType, row.at, `${at}/evidence/${i}/at`),
    ...rowIssues(bikeType, evidence, i, `${at}/evidence/${i}`),
  ])
  return [...bikeIssues(bikeType, bike, `${at}/bike`), ...rows]
}

function rowIssues(bikeType: BikeType, evidence: readonly Evidence[], i: number, at: string): Issue[] {
  const row = evidence[i]
  if (needsMarks(row) && row.at?.seatHeight === undefined) {
    const reason = REASON.needsSeatHeight(row.kind === 'landmarkAtMark' ? 'landmark' : 'saddle')
    return [{ pointer: `${at}/at`, reason }]
  }
  const stature = latest(evidence, 'stature')
  if (row.kind === 'inseam' && stature && row.mm >= stature.mm)
    return [{ pointer: `${at}/mm`, reason: REASON.inseamAsLongAsBody() }]
  const grips = bikeType.grips?.map(({ name }) => name) ?? []
  if (row.kind === 'wish' && row.grip !== undefined && !grips.includes(row.grip))
    return [{ pointer: `${at}/grip`, reason: REASON.noSuchGrip(bikeType.name, row.grip, grips) }]
  return []
}
