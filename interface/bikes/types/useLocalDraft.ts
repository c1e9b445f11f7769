'use client'
import { useEffect, useState, type Dispatch, type SetStateAction } from 'react'
import { AXES } from '@/core/base/adjustments'
import { NEW_DRAFT, type TypeDraft } from './typeDraft'

type LocalDraft = Readonly<{
  draft: TypeDraft
  setDraft: Dispatch<SetStateAction<TypeDraft>>
  found: boolean
  forget: () => void
  discard: () => void
}>

/**
 * A type's draft, stored on this device until it is saved, so that a closed page or a lost network loses nothing.
 * `found` is true for an earlier, unsaved draft; `discard` drops it.
 */
export function useLocalDraft(key: string, start: () => TypeDraft): LocalDraft {
  const [first] = useState(start)
  const [draft, setDraft] = useState(first)
  const [found, setFound] = useState(false)
  const [read, setRead] = useState(false)
  const name = `type-draft-${key}`

  useEffect(() => {
    const draft = draftIn(onDevice(() => localStorage.getItem(name)) ?? null)
    // The first render is the server's; the device's draft comes after it.
    if (draft) {
      setDraft(draft) // eslint-disable-line react-hooks/set-state-in-effect
      setFound(true)
    }
    setRead(true)
  }, [name])

  useEffect(() => {
    if (read && draft !== first) onDevice(() => localStorage.setItem(name, JSON.stringify(draft)))
  }, [read, draft, first, name])

  const forget = () => void onDevice(() => localStorage.removeItem(name))
  const discard = () => {
    forget()
    setDraft(first)
    setFound(false)
  }
  return { draft, setDraft, found, forget, discard }
}

/** What a device's storage answers; nothing where it is full, closed or broken: the page goes on without it. */
function onDevice<T>(access: () => T): T | undefined {
  try {
    return access()
  } catch {
    return undefined
  }
}

/** Fields of an axis that an earlier version lacked, as in a new one. */
const withFields = (axes: TypeDraft['axes']): Partial<TypeDraft['axes']> =>
  Object.fromEntries(AXES.flatMap((name) => (axes[name] ? [[name, { ...NEW_DRAFT.axes[name], ...axes[name] }]] : [])))

/** A stored draft, or null where it is none; fields that an earlier version lacked are as in a new one. */
function draftIn(text: string | null): TypeDraft | null {
  try {
    const parsed = JSON.parse(text ?? 'null') as Partial<TypeDraft> | null
    return parsed && typeof parsed.name === 'string' && parsed.axes?.seatHeight && parsed.equipment
      ? { ...NEW_DRAFT, ...parsed, axes: { ...NEW_DRAFT.axes, ...withFields(parsed.axes) } }
      : null
  } catch {
    return null
  }
}
