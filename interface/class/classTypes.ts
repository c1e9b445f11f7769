export type Side = 'left' | 'right' | 'both'

/** A bike as the class page shows it: who sits there today, and their numbers if they are for this type. */
export type ClassBike = Readonly<{
  id: string
  number: number
  type: string
  /** Out of use until a fault is mended. */
  faulty: boolean
  rider: Readonly<{ id: string; name: string }> | null
  numbers: string | null
  /** What they are for, and why this machine takes other marks than its type; null where there is nothing to say. */
  remark: string | null
  /** Type the rider's numbers belong to, where it is another one. */
  elsewhere: string | null
}>

export type ClassNote = Readonly<{ id: string; memberId: string; sign: string; side: Side }>
