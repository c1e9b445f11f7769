import { App, Button } from 'antd'
import { useAction } from '../../commands/useAction'
import { command } from '../../commands/command'
import styles from './reasons.module.css'
import type { ComplaintSummary } from './reasonsPage'

/** An open complaint, with more to record of it and its end. */
export function FeltLine({
  memberId,
  complaint,
  mayNote,
  changed,
  more,
}: {
  memberId: string
  complaint: ComplaintSummary
  mayNote: boolean
  changed: () => void
  /** Opens the form for the details of a note from the floor. */
  more: () => void
}) {
  const { message } = App.useApp()
  const { act, busy } = useAction()
  const { id, text, when, line, from } = complaint
  const reopen = async () => {
    message.destroy(id)
    if (await act(() => command('comfort.reopenComplaint', { memberId, complaintId: id }))) changed()
  }
  const close = async () => {
    if (!(await act(() => command('comfort.endComplaint', { memberId, complaintId: id })))) return
    const undo = (
      <Button size="large" type="link" onClick={reopen}>
        Undo
      </Button>
    )
    message.open({ key: id, type: 'success', content: <>It is over. {undo}</>, duration: 10 })
    changed()
  }
  return (
    <li className={styles.felt}>
      <b>{text}</b>
      {when && <span>{when}</span>}
      {line && <q>{line}</q>}
      <small>
        {from}
        {complaint.onTrial && ', on trial'}
      </small>
      {mayNote && (
        <div className={styles.does}>
          {complaint.begun && (
            <Button size="large" onClick={more} aria-label={`Say more: ${text}`}>
              Say more
            </Button>
          )}
          <Button size="large" loading={busy} onClick={close} aria-label={`It is over: ${text}`}>
            It is over
          </Button>
        </div>
      )}
    </li>
  )
}
