'use client'
import { useState } from 'react'
import { useForgottenPages } from '../../offline/storePage'
import { SignIn } from './SignIn'
import { TabletSignIn } from './TabletSignIn'

type Props = Readonly<{
  /** Null on a device of one person. */
  tablet: Readonly<{ studio: string; name: string; people: readonly Readonly<{ id: string; name: string }>[] }> | null
  /** The page to open on a shared tablet. */
  to: string
}>

/** Sign-in by name and password, and on a shared tablet by PIN first. */
export function SignInPage({ tablet, to }: Props) {
  const [byPassword, setByPassword] = useState(false)
  useForgottenPages()
  if (!tablet || byPassword) return <SignIn back={tablet ? () => setByPassword(false) : null} />
  const { studio, name, people } = tablet
  return <TabletSignIn studio={studio} tablet={name} people={people} to={to} withPassword={() => setByPassword(true)} />
}
