export { GET } from './ready/route'

export const dynamic = 'force-dynamic'
