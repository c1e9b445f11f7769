import { isDuplicate } from './errors'
import { sameContent } from './sameContent'

/** `idTaken`: the id was used for something else before; nothing was written. */
export type WriteResult = Readonly<{ outcome: 'kept' | 'idTaken' }>

/**
 * Idempotent insert under a client-made id. A retry changes nothing where the `stored` row has the same content;
 * otherwise the outcome is `idTaken`.
 */
export async function insertOnce(
  insert: () => Promise<unknown>,
  stored: () => Promise<unknown>,
  content: unknown,
): Promise<WriteResult> {
  try {
    await insert()
    return { outcome: 'kept' }
  } catch (error) {
    if (!isDuplicate(error)) throw error
    return { outcome: sameContent(await stored(), content) ? 'kept' : 'idTaken' }
  }
}
