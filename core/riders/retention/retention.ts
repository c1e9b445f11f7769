import { Type } from '@sinclair/typebox'
import { closed, type Plain } from '../../base/schema'

/** Kinds of records with a retention time. */
export const KEPT = ['notes', 'complaints', 'sets'] as const
export type Kept = (typeof KEPT)[number]
/** The times offered, months; null: for good. */
export const KEPT_MONTHS = [6, 12, 24, 36, 60, null] as const

const months = Type.Union([Type.Integer({ minimum: 6, maximum: 600 }), Type.Null()])

/**
 * Months after which notes of classes, closed complaints with their trials, and sets of numbers that are no longer in
 * force are deleted; null: never.
 */
export const retentionSchema = closed({ notes: months, complaints: months, sets: months })
export type Retention = Plain<typeof retentionSchema>
