import { isUnmeasured } from '@/core/bikes/calibration/parameters'
import { formatLimit } from '@/core/messages/riders/limits'
import { formatUnmeasured } from '@/core/messages/setups/setupPrompts'
import { formatDate, formatTime } from '@/core/messages/words/dates'
import type { SetupPage } from '@/server/pages/setups/setup'
import { stopProps } from '../comfort/limits/stopProps'
import type { SetupViewProps } from './setupViewProps'

/** One set-up in words; times on the studio's clock. */
export function setupProps(page: SetupPage): Omit<SetupViewProps, 'entersKnownNumbers' | 'back'> {
  const { timeZone, setup, member, rows, previous, hasGauge } = page
  const { school, ownSchool, costs, prior, observer, limits, history, body, elsewhere, otherTypes } = page
  return {
    setupId: setup.id,
    member,
    bike: {
      id: setup.bikeId,
      number: setup.bikeNumber,
      machineCalibration: setup.machineCalibration,
      type: setup.type,
      landmarks: setup.equipment.landmarks,
    },
    school,
    ownSchool,
    costs,
    prior,
    observer,
    limits,
    limitTexts: page.riderLimits.map((limit) => formatLimit(limit, page.today)),
    consent: page.consent,
    today: page.today,
    history,
    body,
    elsewhere,
    otherTypes,
    previous: previous && { ...previous, when: formatDate(previous.at, timeZone) },
    gauge: hasGauge,
    about: aboutRider(page),
    stored: rows,
    finished: setup.finishedAt !== null,
  }
}

/** Context of the rider; null in a finished set-up. */
function aboutRider({ setup, member, context, referral, timeZone }: SetupPage): SetupViewProps['about'] {
  if (!context) return null
  const { lines, seat } = context
  return {
    stop: stopProps(member.id, context, referral),
    lines: [
      ...(isUnmeasured(setup.machineCalibration) ? [formatUnmeasured(setup.type.name)] : []),
      ...lines,
      ...(seat && seat.bikeId !== setup.bikeId
        ? [`Sits on bike ${seat.number} at ${formatTime(seat.startsAt, timeZone)}`]
        : []),
    ],
  }
}
