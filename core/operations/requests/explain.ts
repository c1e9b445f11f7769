import { marksIssues, bikeTypeIssues } from './bikeIssues'
import { schoolIssues } from './studioSettings'
import { causeRow, type Cause } from '../../comfort/model/causeTable'
import { WITHOUT_SIDE } from '../../comfort/model/complaint'
import type { Change, Expected } from '../../comfort/changes/changeTypes'
import { explainComplaints, type WhyNoChange } from '../../comfort/weighing/explain'
import { explainSchema, type ExplainRequest, type Finding } from '../../comfort/model/request'
import { regionNamed, seenSign } from '../../comfort/findings/seenSign'
import {
  formatAgainst,
  formatCheck,
  formatConflict,
  formatDeciding,
  formatExplanation,
  formatFor,
  formatNoChange,
  formatReferral,
} from '../../messages/comfort/complaints'
import { REASON, type Issue } from '../../messages/words/issues'
import { REGIONS, SIGNS } from '../../classes/watch/signs'

export { explainSchema, type ExplainRequest }

export type ExplainResponse = Readonly<{
  /** Heaviest first; weights add to 1. Empty where every complaint is referred. */
  causes: readonly Readonly<{ cause: Cause; weight: number; for: string[]; against: string[] }>[]
  /** Cheap checks, then what would change the order, in the order to do them. */
  checkFirst: string[]
  change?: Change
  /** The cause that the change is for: not the first where that one cannot be put right, or was on trial. */
  proposedFor?: Cause
  /** What the checks should read after the change. */
  expect?: readonly Expected[]
  /** The slide, where the marks of the height are further apart than a small step. */
  orSlide?: Change
  /** What puts the cause right, in words: of the one that is changed for, or the first that is no matter of an axis. */
  remedy?: string
  cue?: string
  offBike?: string
  /** Why nothing is changed, in words; absent beside a change or a referral. */
  noChange?: Readonly<{ code: WhyNoChange['code']; measure?: Finding['kind']; say: string }>
  /** `askFirst`: a missing answer that decides, such as the side of a lasting pain. */
  refer?: Readonly<{ why: string; say: string; askFirst?: string }>
  conflicts: string[]
  sentence: string
}>

/**
 * `explain`: what is probably behind complaints and the next best step, or why the rider is sent on. `tried`: causes
 * whose change was on trial for them and did not help.
 */
export function explain(request: ExplainRequest, tried: readonly Cause[] = []): ExplainResponse {
  const explanation = explainComplaints(request, tried)
  const { causes, deciding, checks, proposal, cue, offBike, referred, conflicts, complaints } = explanation
  const refer = formatReferral(referred)
  const remedied = proposal?.cause ?? causes.at(0)?.cause
  const { noChange } = explanation
  return {
    causes: causes.map((one) => ({
      cause: one.cause,
      weight: one.weight,
      for: formatFor(one, complaints),
      against: formatAgainst(one, tried),
    })),
    checkFirst: [...checks.map(formatCheck), ...deciding.map(formatDeciding)],
    ...(proposal && {
      change: proposal.change,
      proposedFor: proposal.cause,
      expect: proposal.expect,
      ...(proposal.orSlide && { orSlide: proposal.orSlide }),
    }),
    ...(remedied && !refer && (proposal || noChange?.code === 'notOfAnAxis') && { remedy: causeRow(remedied).remedy }),
    ...(noChange && {
      noChange: {
        code: noChange.code,
        ...('measure' in noChange && { measure: noChange.measure }),
        say: formatNoChange(noChange, explanation),
      },
    }),
    ...(cue && { cue }),
    ...(offBike && { offBike }),
    ...(refer && { refer }),
    conflicts: conflicts.map(formatConflict),
    sentence: formatExplanation(explanation, request.bikeType),
  }
}

export function explainIssues({ bikeType, marks, complaints, findings, school }: ExplainRequest): Issue[] {
  const issues: Issue[] = schoolIssues(school ?? {}, '/school')
  if (bikeType) {
    const ofType = bikeTypeIssues(bikeType, '/bikeType')
    issues.push(...ofType)
    if (marks && ofType.length === 0) issues.push(...marksIssues(bikeType, marks, '/marks'))
  } else if (marks) issues.push({ pointer: '/bikeType', reason: REASON.marksNeedType() })
  complaints.forEach(({ what, side }, i) => {
    if (side && WITHOUT_SIDE.includes(what))
      issues.push({ pointer: `/complaints/${i}/side`, reason: REASON.hasNoSide(what) })
  })
  findings.forEach((finding, i) => {
    if (finding.kind !== 'seen') return
    const region = regionNamed(finding.region)
    if (!region) issues.push({ pointer: `/findings/${i}/region`, reason: REASON.noSuchRegion(finding.region, REGIONS) })
    else if (!seenSign(finding.region, finding.what))
      issues.push({
        pointer: `/findings/${i}/what`,
        reason: REASON.noSuchSign(
          finding.what,
          SIGNS.filter((sign) => sign.region === region).map(({ name }) => name.toLowerCase()),
        ),
      })
  })
  return issues
}
