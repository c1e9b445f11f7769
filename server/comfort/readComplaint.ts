import { WITHOUT_SIDE } from '../../core/comfort/model/complaint'
import { oneLine } from '../../core/riders/memberPage/message'
import { requestIssues } from '../../core/operations/dispatch'
import type { ComplaintInput } from '../../core/comfort/complaintInput'

/** A complaint validated against the wire's own schema; null where invalid. A side without meaning is left out. */
export function readComplaint(sent: unknown): ComplaintInput | null {
  const { what, strength, side, moment, lasts, quality, health, line } = (sent ?? {}) as Partial<ComplaintInput>
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
