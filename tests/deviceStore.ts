import { createHash } from 'node:crypto'
import { openStore, type OutboxStore } from '../interface/offline/store'

/** The key of an author as the server gives it to their session. */
export const keyOf = async (author: string): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(createHash('sha256').update(author).digest())

/** A device's store as a page opens it whose author is signed in. */
export const storeOf = (author: string, name: string): Promise<OutboxStore> =>
  openStore(author, name, () => keyOf(author))
