/** Whether something sent is shaped like an id of ours; ids are made by whoever writes. */
export const isId = (id: unknown): id is string => typeof id === 'string' && /^[0-9a-z-]{1,36}$/.test(id)
