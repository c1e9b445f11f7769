/** MariaDB's number of an error, wrapped by the query builder or not; undefined where it is not the database's. */
export function errnoOf(error: unknown): number | undefined {
  const { errno, cause } = error as { errno?: number; cause?: { errno?: number } }
  return cause?.errno ?? errno
}

/** A key that is there already. */
export const DUPLICATE = 1062
/** A row that others refer to. */
export const REFERRED_TO = 1451

/** Whether an insert failed because its key, or this unique index of the table, is taken. */
export function isDuplicate(error: unknown, index?: string): boolean {
  if (errnoOf(error) !== DUPLICATE) return false
  return index === undefined || messageOf(error).includes(index)
}

/** MariaDB's message, wrapped by the query builder or not. */
export function messageOf(error: unknown): string {
  const { cause, message } = error as { cause?: { sqlMessage?: string }; message?: string }
  return cause?.sqlMessage ?? message ?? ''
}
