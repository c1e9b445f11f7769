import { database } from '@/server/platform/db/connection'
import { answerAccountForm } from '@/server/platform/http/accountForm'
import { beginStudio } from '@/server/studio/firstStart'

type Sent = Parameters<typeof beginStudio>[1]

/** `POST /api/accounts/begin`: the studio of a new installation and its first manager, by the code of the start. */
export const POST = (request: Request): Promise<Response> =>
  answerAccountForm<Sent>(request, { form: 'begin', of: () => 'first start' }, (sent) =>
    beginStudio(database(), sent, new Date()),
  )
