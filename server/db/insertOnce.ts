import { isDuplicate } from './errors'
import { sameContent } from './sameContent'

/** `idTaken`: the id was used for something else before; nothing was written. */
export type WriteResult = Readonly<{ outcome: 'kept' | 'idTaken' }>

/**
 * An insert under an id its writer made. Sent again, as after a lost answer, it changes nothing where `stored` (what is
 * there under that id) says the same as `content`; where it says something else the id is taken, and that is told.
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
