import { formatOpened } from '@/core/messages/bikes/care'
import { formatBikeReading, formatMachineState } from '@/core/messages/bikes/machine'
import { formatDate } from '@/core/messages/words/dates'
import type { MachinePage } from '@/server/pages/bikes/machine'
import { careProps } from './careProps'
import type { MachineViewProps } from './MachineView'

/** One machine in words; readings and inspections the latest first. */
export function machineProps(page: MachinePage): MachineViewProps {
  const { bike, code, residual, mayManage, tilt, state, timeZone, faults, readings, inspections, doubtful } = page
  const day = (at: Date) => formatDate(at, timeZone)
  return {
    bike,
    code,
    residual,
    mayManage,
    school: tilt,
    state: formatMachineState(state, timeZone),
    retired: bike.retiredAt && day(bike.retiredAt),
    faults: faults.map(({ id, item, note, foundAt, foundBy, resolvedAt }) => ({
      id,
      item,
      note,
      found: `${day(foundAt)}, ${foundBy}`,
      open: resolvedAt === null,
    })),
    measured: [...readings].reverse().map(({ id, row, createdAt, createdBy }) => ({
      id,
      text: formatBikeReading(bike.type, row),
      when: `${day(createdAt)}, ${createdBy}`,
    })),
    looks: inspections.map(({ id, createdAt, createdBy, good }) => ({
      id,
      text: `${day(createdAt)}, ${createdBy}`,
      good,
    })),
    care: careProps(page),
    saddle: {
      mayManage,
      saddles: page.saddles,
      carries: page.fitting?.saddleId ?? null,
      since: page.fitting ? `since ${day(page.fitting.at)}, ${page.fitting.by}` : null,
    },
    opened: page.opened.flatMap(({ part, at }) => {
      const text = formatOpened(part)
      return text ? [{ part, text, when: day(at) }] : []
    }),
    doubtful: doubtful.map(({ memberId, name, at }) => ({ memberId, name, when: day(at) })),
  }
}
