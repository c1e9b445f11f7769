import type { Metadata } from 'next'
import { REFERRAL } from '@/core/watch/comfort'
import { picturePage } from '@/interface/comfort/picturePage'
import { PictureView } from '@/interface/comfort/PictureView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { studioPicture } from '@/server/pages/picture'
import { database } from '@/server/db/connection'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'The studio’s picture' }

/** What complaints, cues and trials of the whole studio say together. */
export default async function Page() {
  const person = await requirePermission('seeNotes')
  const db = database()
  const { referral } = await getStudio(db, person)
  const picture = await studioPicture(db, person, new Date())
  return (
    <PictureView
      page={picturePage(picture)}
      referral={referral}
      usual={REFERRAL}
      mayWord={can(person, 'manageStudio')}
    />
  )
}
