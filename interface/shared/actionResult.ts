/**
 * What a server action answers: kept, with what the caller needs to know; or refused, with why in words and whatever
 * the caller needs to offer a way on. A throw is a fault of server or network.
 */
export type ActionResult<Data extends object = object, RefusalData extends object = object> =
  Readonly<{ outcome: 'kept' } & Data> | Readonly<{ outcome: 'refused'; say: string } & RefusalData>
