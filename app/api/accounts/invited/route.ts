import type { TypedAccount } from '@/server/platform/accounts/accounts'
import { database } from '@/server/platform/db/connection'
import { answerAccountForm } from '@/server/platform/http/accountForm'
import { acceptInvitation } from '@/server/studio/invitations'

type Sent = Readonly<{ token: string; account: TypedAccount }>

/** `POST /api/accounts/invited`: an account of one's own, or a new password, by a one-time link. */
export const POST = (request: Request): Promise<Response> =>
  answerAccountForm<Sent>(request, { form: 'invited', of: ({ token }) => `invitation ${token}` }, (sent) =>
    acceptInvitation(database(), sent.token, sent.account, new Date()),
  )
