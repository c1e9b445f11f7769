/**
 * Result of a server action: `kept` with data for the caller, or `refused` with a sentence and data for a way on. A
 * throw is a fault of server or network.
 */
export type ActionResult<Data extends object = object, RefusalData extends object = object> =
  Readonly<{ outcome: 'kept' } & Data> | Readonly<{ outcome: 'refused'; say: string } & RefusalData>
