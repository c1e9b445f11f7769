'use client'
import { useState } from 'react'
import { ACCOUNT_TEXT, type AccountRefusal } from '@/core/messages/studio/accounts'

const UNREACHABLE = 'The studio’s server cannot be reached. What you typed is still here; try again.'
const FAULT = 'The studio’s server had a fault. What you typed is still here; try again.'

/** Sends a form about an account to an address; what was typed stays where it was refused. */
export function useAccountForm(address: string) {
  const [trouble, setTrouble] = useState('')
  const [busy, setBusy] = useState(false)
  /** Resolves with the answer where it was taken, else null. */
  async function request<Answer extends object>(body: object): Promise<Answer | null> {
    setBusy(true)
    setTrouble('')
    try {
      const response = await fetch(address, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      })
      if (response.ok) return (await response.json()) as Answer
      const { code } = (await response.json().catch(() => ({}))) as { code?: AccountRefusal }
      setTrouble((code && ACCOUNT_TEXT[code]) ?? FAULT)
    } catch {
      setTrouble(UNREACHABLE)
    } finally {
      setBusy(false)
    }
    return null
  }
  /** Resolves with whether it was taken. */
  const send = async (body: object): Promise<boolean> => (await request(body)) !== null
  return { send, request, trouble, busy }
}

/** Signs in with what was just chosen and opens the first page; to the sign-in page where that does not work. */
export async function signInWith(username: string, password: string, next = '/today'): Promise<void> {
  const response = await fetch('/api/auth/sign-in/username', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ username: username.trim(), password }),
  }).catch(() => null)
  window.location.replace(response?.ok ? next : '/sign-in')
}
