/** Whether a value has the format of an id; clients make the ids. */
export const isId = (id: unknown): id is string => typeof id === 'string' && /^[0-9a-z-]{1,36}$/.test(id)

/** The id of part `i` (0–65535) of the write `id`: the same in a retry. */
export const partId = (id: string, i: number) => `${id.slice(0, -4)}${i.toString(16).padStart(4, '0')}`

/** Something sent that should be text: itself, or nothing where it is something else. */
export const textOf = (sent: unknown): string => (typeof sent === 'string' ? sent : '')
