/** Many individuals of one kind, one column of numbers per quantity; all columns are of one length. */
export type Columns<Name extends string> = Readonly<Record<Name, Float64Array>>

/** A column of `count` numbers. */
export function columnOf(count: number, value: (i: number) => number): Float64Array {
  const column = new Float64Array(count)
  for (let i = 0; i < count; i++) column[i] = value(i)
  return column
}
