'use client'
import { memo } from 'react'
import {
  CartesianGrid,
  Label,
  Line,
  LineChart,
  ReferenceArea,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import type { BikeType } from '@/core/bikes/bike/bike'
import { formatBodyLength, type UnitSystem } from '@/core/base/length'

/** Line styles that separate types without colour. */
export const DASHES = ['', '10 5', '3 4', '14 4 3 4', '1 3']
export const FLEET = 'The fleet'
export const INKS = ['var(--act)', 'var(--good)', 'var(--ink)', 'var(--steel)', 'var(--kit)']

type Props = Readonly<{
  /** A row a stature, mm: riders of 100 by the name of the type, null while it is worked out. */
  rows: readonly Readonly<Record<string, number | null>>[]
  types: readonly Readonly<{ bikeType: BikeType }>[]
  shown: UnitSystem
}>

/** Riders of 100 who find their marks, over height, a line a type. Drawn again only when its rows change. */
export const AccommodationChart = memo(function AccommodationChart({ rows, types, shown }: Props) {
  return (
    <ResponsiveContainer width="100%" height="100%">
      <LineChart data={rows as Record<string, number | null>[]} margin={{ top: 16, right: 24, bottom: 22, left: 14 }}>
        <CartesianGrid stroke="var(--line)" vertical={false} />
        <ReferenceArea y1={0} y2={80} fill="var(--sunk)" fillOpacity={0.45} />
        <XAxis
          dataKey="statureMm"
          stroke="var(--soft)"
          tickFormatter={(mm: number) => formatBodyLength(mm, shown).replace(' cm', '')}
          interval="preserveStartEnd"
          tick={{ fontSize: 13 }}
          minTickGap={14}
        >
          <Label position="bottom" offset={4} fontSize={13} fill="var(--soft)">
            {shown === 'imperial' ? 'Height, feet and inches' : 'Height, cm'}
          </Label>
        </XAxis>
        <YAxis
          domain={[0, 100]}
          ticks={[0, 20, 40, 60, 80, 100]}
          stroke="var(--soft)"
          width={44}
          tick={{ fontSize: 13 }}
        >
          <Label angle={-90} position="insideLeft" offset={-4} fontSize={13} fill="var(--soft)">
            Riders of 100
          </Label>
        </YAxis>
        <Tooltip
          contentStyle={{ background: 'var(--raised)', border: '1px solid var(--line)', color: 'var(--ink)' }}
          labelFormatter={(mm) => formatBodyLength(Number(mm), shown)}
          formatter={(value) => `${String(value)} of 100`}
        />
        <Line
          type="monotone"
          dataKey={FLEET}
          stroke="var(--bar)"
          strokeWidth={9}
          dot={false}
          isAnimationActive={false}
        />
        {types.map(({ bikeType }, k) => (
          <Line
            key={bikeType.name}
            type="monotone"
            dataKey={bikeType.name}
            stroke={INKS[k % INKS.length]}
            strokeDasharray={DASHES[k % DASHES.length]}
            strokeWidth={3}
            dot={false}
            isAnimationActive={false}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  )
})
