import type { Metadata } from 'next'
import { picturePage } from '@/interface/comfort/picture/picturePage'
import { PictureView } from '@/interface/comfort/picture/PictureView'
import { studioPicture } from '@/server/pages/comfort/picture'
import { can } from '@/server/platform/accounts/can'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { getStudio } from '@/server/studio/studio'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'The studio’s picture' }

/** What complaints, cues and trials of the whole studio show together. */
export default async function PictureRoute() {
  const person = await requirePermission('seeNotes')
  seen(person, 'picture')
  const { referral } = await getStudio(database(), person)
  const page = picturePage(await studioPicture(database(), person, new Date()))
  return <PictureView page={page} referral={referral} mayWord={can(person, 'manageStudio')} />
}
