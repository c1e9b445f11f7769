'use client'
import { Button } from 'antd'
import { useState } from 'react'
import { useAction } from '../../commands/useAction'
import { useIdempotencyKey } from '../../commands/useIdempotencyKey'
import { ownCommand } from '../../commands/command'
import styles from './memberPage.module.css'

/** Requests a re-check from the studio. */
export function Recheck({ token }: { token: string }) {
  const { act, busy } = useAction()
  const { idFor } = useIdempotencyKey()
  const [isSent, setSent] = useState(false)
  return (
    <section className={styles.part} aria-label="A second look">
      <h2>A second look</h2>
      {isSent ? (
        <p className={styles.lead} role="status">
          Asked. Come five minutes before class.
        </p>
      ) : (
        <Button
          size="large"
          block
          loading={busy}
          onClick={async () => {
            if (await act(() => ownCommand(token, 'ownPage.requestRecheck', { line: '' }, idFor('recheck'))))
              setSent(true)
          }}
        >
          Please look at my set-up again
        </Button>
      )}
    </section>
  )
}
