import { Type } from '@sinclair/typebox'
import type { ClassEntry } from '../../core/classes/watch/classState'
import type { Scope } from '../platform/accounts/scope'
import { publishClassEvent } from '../classes/live'
import * as notes from '../classes/notes'
import type { DbExecutor } from '../platform/db/connection'
import { isId } from '../platform/ids'
import { mergedInto } from '../riders/members/members'
import { refused, type CommandContext } from './defineCommand'

/* What commands from the floor share: a class, a rider and a bike by their ids, and news to its open pages. */

/** Ids that are refused by name rather than as malformed. */
export const anyText = Type.String({ maxLength: 200 })
export const anyDetail = Type.Optional(Type.Unknown())
export const onFloor = { classId: Type.Optional(anyText), memberId: anyText, bikeId: anyText }

type OnFloor = Readonly<{ classId?: string; memberId?: string; bikeId?: string }>

/**
 * The member of an entry, who may have been merged since it was written, and whether they agreed to notes; undefined
 * where the entry is about nobody; a refusal where class, rider or bike do not exist.
 */
export async function memberOf(
  db: DbExecutor,
  scope: Scope,
  { classId, memberId, bikeId }: OnFloor,
): Promise<Readonly<{ memberId?: string; agrees?: boolean }> | ReturnType<typeof refused>> {
  if (classId !== undefined && !isId(classId)) return refused({ code: 'noClass' })
  if (memberId === undefined || bikeId === undefined) {
    const { ofClass } = await notes.findOnFloor(db, scope, { classId })
    return classId !== undefined && !ofClass ? refused({ code: 'noClass' }) : {}
  }
  if (!isId(memberId) || !isId(bikeId)) return refused({ code: 'noNote' })
  const there = await notes.findOnFloor(db, scope, { classId, memberId, bikeId })
  if (classId !== undefined && !there.ofClass) return refused({ code: 'noClass' })
  if (there.rider) return { memberId, agrees: there.agrees }
  const into = await mergedInto(db, scope, memberId)
  return into ? memberOf(db, scope, { classId, memberId: into, bikeId }) : refused({ code: 'noNote' })
}

/** Notifies open pages of the class of what was written, as it was read here. */
export function announce(
  { id, observedAt, afterCommit }: CommandContext,
  classId: string | undefined,
  entry: ClassEntry,
): void {
  if (classId === undefined) return
  afterCommit(() => publishClassEvent(classId, { id, atMs: observedAt.getTime(), entry }))
}
