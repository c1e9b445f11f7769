import { setPin } from '@/server/platform/accounts/pin'
import { currentSession } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { answerAccountForm } from '@/server/platform/http/accountForm'

type Sent = Readonly<{ password: string; pin: string }>

/** `POST /api/accounts/pin`: sets the PIN of the session's user, or removes it where it is empty; 401 signed out. */
export async function POST(request: Request): Promise<Response> {
  const session = await currentSession()
  if (!session) return Response.json({ code: 'wrong' }, { status: 401 })
  return answerAccountForm<Sent>(request, { form: 'pin', of: () => `password of ${session.userId}` }, (sent) =>
    setPin(database(), session, sent),
  )
}
