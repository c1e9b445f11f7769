'use client'
import { Button } from 'antd'
import { useState } from 'react'
import { ACCOUNT_TEXT, ROLE_NAME, ROLE_TEXT } from '@/core/messages/studio/accounts'
import type { InvitationClosed, InvitationFound } from '@/server/studio/invitations'
import { AccountFields, NewPassword, NOTHING_TYPED } from './AccountFields'
import { AccountPage } from './AccountPage'
import { signInWith, useAccountForm } from './useAccountForm'

/** Behind a one-time link: an account of one's own, or a new password; or why the link opens nothing. */
export function Invited({ token, found }: Readonly<{ token: string; found: InvitationFound | InvitationClosed }>) {
  const [account, setAccount] = useState(NOTHING_TYPED)
  const { send, trouble, busy } = useAccountForm('/api/accounts/invited')
  if (typeof found === 'string')
    return (
      <AccountPage title="This link is closed" lead={ACCOUNT_TEXT[found]} form={null}>
        <Button type="primary" size="large" block href="/sign-in">
          Sign in
        </Button>
      </AccountPage>
    )
  const { studio, role, forName } = found
  async function accept() {
    if (!(await send({ token, account }))) return
    if (forName) window.location.replace('/sign-in')
    else await signInWith(account.username, account.password)
  }
  const form = { send: () => void accept(), button: forName ? 'Set the password' : 'Join', busy, trouble }
  if (forName)
    return (
      <AccountPage title={forName} lead={`A new password for ${studio}. It signs you out everywhere else.`} form={form}>
        <NewPassword value={account.password} onChange={(password) => setAccount({ ...account, password })} />
      </AccountPage>
    )
  return (
    <AccountPage title={studio} lead={`You are invited as ${ROLE_NAME[role]}. ${ROLE_TEXT[role]}`} form={form}>
      <AccountFields typed={account} onTyped={setAccount} />
    </AccountPage>
  )
}
