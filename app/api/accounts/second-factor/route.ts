import { eq } from 'drizzle-orm'
import {
  beginSecondFactor,
  confirmSecondFactor,
  endSecondFactor,
  newRecoveryCodes,
} from '@/server/platform/accounts/secondFactor'
import { awaitsPasskey, currentSession } from '@/server/platform/accounts/session'
import { studio, user } from '@/server/platform/accounts/tables'
import { database } from '@/server/platform/db/connection'
import { answerAccountForm } from '@/server/platform/http/accountForm'
import { qrSvg } from '@/server/riders/memberPage/qr'

type Sent = Readonly<{ step: 'begin' | 'confirm' | 'end' | 'codes'; secret: string }>

/**
 * `POST /api/accounts/second-factor`: a step of the session's user, each with its secret. `begin` and `codes` (the
 * password) return the secrets to store, `confirm` (a code) turns the second factor on, `end` (the password) off; 401
 * signed out.
 */
export async function POST(request: Request): Promise<Response> {
  const session = await currentSession()
  if (!session) return Response.json({ code: 'wrong' }, { status: 401 })
  const { headers } = request
  return answerAccountForm<Sent>(
    request,
    { form: 'secondFactor', of: () => `second factor of ${session.userId}` },
    async ({ step, secret }) => {
      if (await awaitsPasskey()) return 'passkeyFirst'
      if (step === 'confirm') return confirmSecondFactor(headers, secret.replaceAll(' ', ''))
      if (step === 'end') return endSecondFactor(headers, secret)
      if (step === 'codes') {
        const codes = await newRecoveryCodes(headers, secret)
        return codes ? { codes } : 'wrong'
      }
      const made = await beginSecondFactor(headers, secret, await labelOf(session.userId))
      return made ? { qr: await qrSvg(made.uri), secret: made.secret, codes: made.codes } : 'wrong'
    },
  )
}

async function labelOf(userId: string): Promise<{ studio: string; username: string }> {
  const [found] = await database()
    .select({ studio: studio.name, username: user.username })
    .from(user)
    .innerJoin(studio, eq(studio.id, user.studioId))
    .where(eq(user.id, userId))
  return { studio: found?.studio ?? '', username: found?.username ?? '' }
}
