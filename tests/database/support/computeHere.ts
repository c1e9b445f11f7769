import { dispatch } from '@/core/operations/dispatch'

/** Instead of the pool, whose thread is a bundle beside a build: the core answers at once. */
export const compute = async (operation: string, request: unknown): Promise<object> => dispatch(operation, request)
