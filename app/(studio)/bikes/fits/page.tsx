import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { AccommodationView } from '@/interface/bikes/accommodation/AccommodationView'
import { accommodationPage } from '@/server/pages/bikes/accommodation'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Who fits' }

export default async function WhoFitsPage() {
  const page = await accommodationPage(database(), await requirePermission('seeBikes'))
  return page.types.length > 0 ? <AccommodationView {...page} /> : redirect('/bikes')
}
