import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { TypeCode } from '@/interface/setups/alone/TypeCode'
import { normalizeCode } from '@/server/bikes/codes'

export const metadata: Metadata = { title: 'The code on your bike', robots: { index: false, follow: false } }

/** For a phone without a camera: the code is typed. */
export default async function TypeCodeRoute({ searchParams }: { searchParams: Promise<{ code?: string | string[] }> }) {
  const { code: typed = '' } = await searchParams
  const code = normalizeCode(String(typed))
  if (code) redirect(`/b/${code}`)
  return <TypeCode title={typed === '' ? 'The code on your bike' : 'That is no code'} />
}
