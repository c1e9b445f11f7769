import { formatNote } from '@/core/messages/classes/watch'
import { formatDisturbed, formatMoveOnTile } from '@/core/messages/setups/floorMoves'
import { formatComplaint, formatTrialStage } from '@/core/messages/comfort/comfort'
import type { AfterData, AfterRow, AfterSubject } from '@/server/pages/classes/after'

/** A line of the list after a class, its subjects in words. */
export type AfterLineProps = Omit<AfterRow, 'subjects'> & Readonly<{ texts: readonly string[] }>
export type AfterViewData = Omit<AfterData, 'rows' | 'put' | 'all'> &
  Readonly<{ rows: readonly AfterLineProps[]; put: readonly AfterLineProps[] }>

function textOf(subject: AfterSubject): string {
  switch (subject.kind) {
    case 'note':
      return formatNote(subject.note)
    case 'complaint':
      return formatComplaint(subject.complaint)
    case 'trial': {
      const { said, stage, proposed, verdict } = subject.trial
      return `${said}. ${formatTrialStage(stage, proposed, verdict)}`
    }
    case 'plan':
      return subject.text
    case 'move':
      return `${formatMoveOnTile(subject.scales, subject.move)}. ${formatDisturbed(subject.move.axis)}`
    case 'words':
      return subject.words
  }
}

/** Notes of the same thing are one text. */
const lineProps = ({ subjects, ...row }: AfterRow): AfterLineProps => ({
  ...row,
  texts: [...new Set(subjects.map(textOf))],
})

/** What came up in a class, in words. */
export const afterProps = ({ rows, put, all: _, ...data }: AfterData): AfterViewData => ({
  ...data,
  rows: rows.map(lineProps),
  put: put.map(lineProps),
})
