import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { TypeEditor } from '@/interface/bikes/types/TypeEditor'
import { requirePermission } from '@/server/platform/accounts/session'
import { listVersions } from '@/server/bikes/versions'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Type' }

type Props = Readonly<{ params: Promise<{ id: string }>; searchParams: Promise<{ copy?: string }> }>

/** A type's editor: an existing line by its id, or a new one, empty or as a copy of another. */
export default async function TypePage({ params, searchParams }: Props) {
  const person = await requirePermission('manageBikes')
  const { id } = await params
  const { copy } = await searchParams
  const [latest] = id === 'new' && !copy ? [] : await listVersions(database(), person, copy ?? id)
  if (!latest && (id !== 'new' || copy)) notFound()
  return (
    <TypeEditor
      key={`${latest?.id}-${copy ?? ''}`}
      start={latest ? { bikeType: latest.bikeType, equipment: latest.equipment } : null}
      baseId={latest?.id ?? null}
      copy={copy !== undefined}
      version={latest?.version ?? 0}
    />
  )
}
