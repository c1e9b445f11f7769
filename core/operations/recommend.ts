import { needsMarks, latest, UNSUPPORTED_KINDS, isSaddleCheck } from '../evidence/evidence'
import type { Evidence } from '../evidence/registry'
import { REASON, type Issue } from '../messages/issues'
import { renderMessages } from '../messages/recommendation'
import { recommend as advise, type Advice } from '../recommend/recommend'
import type { RecommendRequest } from '../recommend/request'
import type { Marks } from '../conventions'
import { bikeIssues, bikeTypeIssues, canonicalMarks, marksIssues } from './bikeIssues'

/** `recommend`'s answer: the advice in codes and figures, with finished English beside it. */
export type Recommendation = Readonly<{
  chances: Advice['chances']
  next: Advice['next'] & Readonly<{ sentence: string; because: string[] }>
  belief: Advice['belief']
  cautions: string[]
  /** Marks everything was computed at. */
  marks: Marks
  bars: Advice['bars'] & Readonly<{ sentence: string }>
  doubts: readonly (Advice['anomalies'][number] & Readonly<{ say: string }>)[]
}>

/** `recommend`: the next best step with its chances, in figures and in words. */
export function recommend(request: RecommendRequest): Recommendation {
  const { bikeType } = request
  const evidence = request.evidence.map((row) => (row.at ? { ...row, at: canonicalMarks(bikeType, row.at) } : row))
  const advice = advise({ ...request, evidence })
  const messages = renderMessages(bikeType, evidence, advice, request.lengths)
  return {
    chances: advice.chances,
    next: { ...advice.next, sentence: messages.sentence, because: messages.because },
    belief: advice.belief,
    cautions: messages.cautions,
    marks: advice.marks,
    bars: { ...advice.bars, sentence: messages.bars },
    doubts: advice.anomalies.map((anomaly, i) => ({ ...anomaly, say: messages.anomalies[i] })),
  }
}

export function recommendIssues({ bikeType, bike, school, evidence }: RecommendRequest): Issue[] {
  const scales = bikeTypeIssues(bikeType, '/bikeType')
  if (scales.length > 0) return scales
  const window = school?.kneeWindowDeg
  const schoolIssues =
    window && window[0] > window[1] ? [{ pointer: '/school/kneeWindowDeg', reason: REASON.windowReversed() }] : []
  const rows = evidence.flatMap((row, i) => [
    ...marksIssues(bikeType, row.at, `/evidence/${i}/at`),
    ...rowIssues(evidence, i),
  ])
  return [...bikeIssues(bikeType, bike, '/bike'), ...schoolIssues, ...rows]
}

function rowIssues(evidence: readonly Evidence[], i: number): Issue[] {
  const row = evidence[i]
  if (needsMarks(row) && row.at?.seatHeight === undefined) {
    const reason = REASON.needsSeatHeight(isSaddleCheck(row) ? 'saddle' : 'landmark')
    return [{ pointer: `/evidence/${i}/at`, reason }]
  }
  const stature = latest(evidence, 'stature')
  if (row.kind === 'inseam' && stature && row.mm >= stature.mm)
    return [{ pointer: `/evidence/${i}/mm`, reason: REASON.inseamAsLongAsBody() }]
  return []
}

/** Kinds of the wire format that this version does not take, refused by name. */
export function unsupportedKinds(request: unknown): Issue[] {
  const rows = (request as { evidence?: unknown } | null)?.evidence
  if (!Array.isArray(rows)) return []
  return rows.flatMap((row: { kind?: unknown } | null, i) =>
    typeof row?.kind === 'string' && UNSUPPORTED_KINDS.includes(row.kind)
      ? [{ pointer: `/evidence/${i}/kind`, reason: REASON.unsupportedKind(row.kind) }]
      : [],
  )
}
