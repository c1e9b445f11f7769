import type { Role } from '../db/roles'

/**
 * Whose rows a query sees, and who is recorded as having written. Every query and use case takes one: what belongs to
 * another studio does not exist for it.
 */
export type Scope = Readonly<{ studioId: string; userId: string; role: Role }>
