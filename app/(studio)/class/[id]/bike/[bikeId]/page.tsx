import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { axesOf } from '@/core/bike/bike'
import { formatLabel } from '@/core/messages/labels'
import { AXIS_TITLE } from '@/core/messages/phrases'
import { BikeSide } from '@/interface/class/BikeSide'
import { classPage } from '@/interface/class/classPage'
import { listSeats } from '@/server/classes/seats'
import { database } from '@/server/db/connection'

export const metadata: Metadata = { title: 'At the bike' }

export default async function BikeSidePage({ params }: { params: Promise<{ id: string; bikeId: string }> }) {
  const { id, bikeId } = await params
  const { person, ofClass } = await classPage(id, 'seeNumbers')
  const seat = (await listSeats(database(), person, ofClass.id)).find(({ bike }) => bike.id === bikeId)
  if (!seat) notFound()
  const { bike, rider, marks, remark, elsewhere } = seat
  return (
    <BikeSide
      classId={ofClass.id}
      title={ofClass.title}
      number={bike.number}
      type={bike.type.name}
      name={rider?.name ?? null}
      numbers={
        marks &&
        axesOf(bike.type).map((axis) => ({
          scale: AXIS_TITLE[axis],
          label: marks[axis] === undefined ? '–' : formatLabel(bike.type, axis, marks[axis]),
        }))
      }
      remark={remark ?? (elsewhere ? `Numbers are for ${elsewhere}.` : null)}
    />
  )
}
