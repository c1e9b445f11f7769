import { changeOwnPassword } from '@/server/platform/accounts/accounts'
import { currentSession } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { answerAccountForm } from '@/server/platform/http/accountForm'

type Sent = Readonly<{ present: string; next: string }>

/** `POST /api/account`: changes the password of the session's user; needs the present one; 401 signed out. */
export async function POST(request: Request): Promise<Response> {
  const session = await currentSession()
  if (!session) return Response.json({ code: 'wrong' }, { status: 401 })
  return answerAccountForm<Sent>(request, { form: 'password', of: () => `password of ${session.userId}` }, (sent) =>
    changeOwnPassword(database(), session, sent, new Date()),
  )
}
