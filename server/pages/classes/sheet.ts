import { createHash } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import { formatOtherNumbers } from '../../../core/messages/classes/planning'
import { CERTAINTY_WORD } from '../../../core/messages/setups/register'
import type { Scope } from '../../platform/accounts/scope'
import type { SheetRow } from '../../classes/cards/cards'
import type { DbExecutor } from '../../platform/db/connection'
import { classSheetPrint } from '../../classes/tables'
import { lockClass } from '../../classes/assignments'
import { listSeats, type Seat } from '../../classes/seats'

/** A bike as the sheet and the tags of a class show it. */
export const sheetRow = ({ bike, rider, marks, certainty, remark, elsewhere }: Seat): SheetRow => ({
  number: bike.number,
  bikeType: bike.type,
  name: rider?.name ?? null,
  marks,
  sure: certainty && CERTAINTY_WORD[certainty],
  remark: remark ?? (elsewhere && formatOtherNumbers(elsewhere)),
})

/** SHA-256 of what a sheet of these seats shows. */
function digestOf(seats: readonly Seat[]): string {
  const rows = seats
    .filter(({ rider }) => rider !== null)
    .map(sheetRow)
    .map(({ number, bikeType, name, marks, sure, remark }) => [number, bikeType.name, name, marks, sure, remark])
  return createHash('sha256').update(JSON.stringify(rows)).digest('hex')
}

/** Records that the sheet of a class was printed from these seats; nothing where the studio has no such class. */
export async function recordSheet(
  db: DbExecutor,
  scope: Scope,
  classId: string,
  seats: readonly Seat[],
  now: Date,
): Promise<void> {
  if (!(await lockClass(db, scope, classId))) return
  const print = { digest: digestOf(seats), printedAt: now }
  await db
    .insert(classSheetPrint)
    .values({ ...print, classId, studioId: scope.studioId })
    .onDuplicateKeyUpdate({ set: print })
}

/** Print time of the latest sheet of a class if places or numbers changed since; null if it is up to date. */
export async function outdatedSheet(db: DbExecutor, scope: Scope, classId: string): Promise<Date | null> {
  const [print] = await db
    .select({ digest: classSheetPrint.digest, printedAt: classSheetPrint.printedAt })
    .from(classSheetPrint)
    .where(and(eq(classSheetPrint.classId, classId), eq(classSheetPrint.studioId, scope.studioId)))
  if (!print) return null
  return digestOf(await listSeats(db, scope, classId)) === print.digest ? null : print.printedAt
}
