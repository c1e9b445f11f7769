import type { Metadata } from 'next'
import { headers } from 'next/headers'
import { notFound } from 'next/navigation'
import { MachineCodeView } from '@/interface/setups/alone/MachineCodeView'
import { openCode } from '@/server/bikes/codeLimits'
import { machineCodePage } from '@/server/pages/bikes/machineCode'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'This bike', robots: { index: false, follow: false } }

/** What a machine's printed code opens, to anybody. */
export default async function MachineCodeRoute({ params }: { params: Promise<{ code: string }> }) {
  const { code } = await params
  const peer = (await headers()).get('x-forwarded-for') ?? 'unknown'
  const found = (await openCode(database(), peer, code)) ?? notFound()
  return <MachineCodeView code={code} page={await machineCodePage(database(), found)} />
}
