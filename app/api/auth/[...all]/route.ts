import { auth } from '@/server/accounts/auth'

const handle = (request: Request): Promise<Response> => auth().handler(request)

export { handle as GET, handle as POST }
