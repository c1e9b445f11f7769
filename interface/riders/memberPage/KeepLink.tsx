'use client'
import { useEffect } from 'react'
import { keepOwnLink, useOwnLink } from '../../kit/ownLink'
import styles from './memberPage.module.css'

/** Keeps this link on the phone, for the codes on the bikes; and a way to forget it, for a phone that is shared. */
export function KeepLink({ token }: Readonly<{ token: string }>) {
  const kept = useOwnLink()
  useEffect(() => keepOwnLink(token), [token])
  if (kept === undefined) return null
  const isKept = kept === token
  return (
    <p className={styles.quiet}>
      {isKept ? 'This phone keeps the link: scan a bike’s code and your numbers for it are there. ' : 'Not kept here. '}
      <button type="button" className={styles.forget} onClick={() => keepOwnLink(isKept ? null : token)}>
        {isKept ? 'Forget it on this phone' : 'Keep it'}
      </button>
    </p>
  )
}
