import { database } from '@/server/platform/db/connection'
import { answerAccountForm } from '@/server/platform/http/accountForm'
import { beginStudio } from '@/server/studio/firstStart'

/** `POST /api/accounts/begin`: the studio of a new installation and its first manager, by the code printed at the start. */
export const POST = (request: Request): Promise<Response> =>
  answerAccountForm<Parameters<typeof beginStudio>[1]>(request, { form: 'begin', of: () => 'first start' }, (sent) =>
    beginStudio(database(), sent, new Date()),
  )
