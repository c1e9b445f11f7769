import type { Evidence } from './registry'

/** Whether a row records health in the rider's answers, for which their consent is needed. */
export const hasHealthAnswer = (row: Evidence): boolean =>
  row.kind === 'rider' && (row.backSore === true || row.pregnant === true)
