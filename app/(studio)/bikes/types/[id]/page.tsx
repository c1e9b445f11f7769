import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { TypeEditor } from '@/interface/bikes/TypeEditor'
import { requireUser } from '@/server/accounts/session'
import { typeLine } from '@/server/bikes/types'
import { database } from '@/server/db/connection'

export const metadata: Metadata = { title: 'Type' }

type Asked = Readonly<{ params: Promise<{ id: string }>; searchParams: Promise<{ copy?: string }> }>

/** A type's editor: an existing line by its id, or a new one, empty or as a copy of another. */
export default async function TypePage({ params, searchParams }: Asked) {
  await requireUser()
  const { id } = await params
  const { copy } = await searchParams
  const [latest] = id === 'new' && !copy ? [] : await typeLine(database(), copy ?? id)
  if (!latest && (id !== 'new' || copy)) notFound()
  return (
    <TypeEditor
      key={`${latest?.id}-${copy ?? ''}`}
      start={latest ? { bikeType: latest.bikeType, sheet: latest.sheet } : null}
      baseId={latest?.id ?? null}
      copy={copy !== undefined}
      version={latest?.version ?? 0}
    />
  )
}
