'use client'
import { Input } from 'antd'
import styles from '../signIn/signIn.module.css'
import { MIN_PASSWORD_TEXT } from '@/core/messages/studio/accounts'

export type Typed = Readonly<{ name: string; username: string; password: string }>
export const NOTHING_TYPED: Typed = Object.freeze({ name: '', username: '', password: '' })

/** Name, the name to sign in with, and a password. */
export function AccountFields({ typed, onTyped }: Readonly<{ typed: Typed; onTyped: (typed: Typed) => void }>) {
  return (
    <>
      <div className={styles.pair}>
        <div>
          <label htmlFor="name">Your name</label>
          <Input
            id="name"
            size="large"
            autoComplete="name"
            value={typed.name}
            onChange={(event) => onTyped({ ...typed, name: event.target.value })}
          />
        </div>
        <div>
          <label htmlFor="username">Name to sign in with</label>
          <Input
            id="username"
            size="large"
            autoComplete="username"
            autoCapitalize="none"
            value={typed.username}
            onChange={(event) => onTyped({ ...typed, username: event.target.value })}
          />
        </div>
      </div>
      <NewPassword value={typed.password} onChange={(password) => onTyped({ ...typed, password })} />
    </>
  )
}

/** A new password, with what makes a good one. */
export function NewPassword({ value, onChange }: Readonly<{ value: string; onChange: (value: string) => void }>) {
  return (
    <>
      <label htmlFor="new-password">New password</label>
      <Input.Password
        id="new-password"
        size="large"
        autoComplete="new-password"
        aria-describedby="password-hint"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      <small id="password-hint">{MIN_PASSWORD_TEXT}</small>
    </>
  )
}
