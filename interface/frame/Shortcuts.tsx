'use client'
import { useEffect, useRef, useState } from 'react'
import styles from './shortcuts.module.css'

/** Keys and what they do. */
export type ShortcutKeys = readonly (readonly [keys: string, does: string])[]

/** `?` shows the keys of this page; any key or tap puts them away. */
export function Shortcuts({ keys }: { keys: ShortcutKeys }) {
  const [open, setOpen] = useState(false)
  const dialog = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLElement && event.target.closest('input:not([type=range]), textarea')
      if (event.key !== '?' || inField) return
      event.preventDefault()
      setOpen((shown) => !shown)
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
  useEffect(() => {
    if (open) dialog.current?.showModal?.()
    else dialog.current?.close?.()
  }, [open])
  return (
    <dialog
      ref={dialog}
      className={styles.keys}
      aria-label="Keys of this page"
      onClose={() => setOpen(false)}
      onClick={() => setOpen(false)}
    >
      {open && (
        <>
          <h2>Keys</h2>
          <dl>
            {keys.map(([key, does]) => (
              <div key={key}>
                <dt>
                  <kbd>{key}</kbd>
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        </>
      )}
    </dialog>
  )
}
