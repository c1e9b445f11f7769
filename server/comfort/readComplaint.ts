import { WITHOUT_SIDE } from '../../core/complaints/complaint'
import { oneLine } from '../../core/memberPage/message'
import { requestIssues } from '../../core/operations/dispatch'
import type { ComplaintSaid } from '../../core/complaints/complaintSaid'

/** What was said, held to the wire's own schema; null where it is none. A side that means nothing is left out. */
export function readComplaint(sent: unknown): ComplaintSaid | null {
  const { what, strength, side, moment, lasts, quality, health, line } = (sent ?? {}) as Partial<ComplaintSaid>
  if (!what || !Number.isInteger(strength)) return null
  const own = {
    what,
    strength: strength!,
    side: WITHOUT_SIDE.includes(what) ? null : (side ?? null),
    moment: moment ?? null,
    lasts: typeof lasts === 'boolean' ? lasts : null,
    quality: quality ?? [],
    health: health ?? [],
  }
  const request = {
    complaints: [
      {
        what,
        strength,
        ...(own.side && { side: own.side }),
        ...(own.moment && { when: own.moment }),
        ...(own.lasts !== null && { lasts: own.lasts }),
        quality: own.quality,
      },
    ],
    health: own.health,
    findings: [],
  }
  return requestIssues('explain', request).length > 0 ? null : { ...own, line: oneLine(line) }
}
