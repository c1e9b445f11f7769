'use client'
import { useEffect, useState, type ComponentType } from 'react'
import styles from './lazyDialog.module.css'

type Opens = Readonly<{ open: boolean; close: () => void }>

/** So long after a page answers to hands what it may need later is fetched, ms. */
const SOON_MS = 2500

/**
 * A dialog or drawer that is fetched apart from the page: soon after it, when the browser has time, so that it opens at
 * once; where it cannot be fetched the page shows a message and goes on.
 */
export function lazyDialog<P extends Opens>(load: () => Promise<{ default: ComponentType<P> }>): ComponentType<P> {
  let loaded: ComponentType<P> | undefined
  const fetched = async () => (loaded ??= (await load()).default)
  return function LaterPart(props: P) {
    const [Part, setPart] = useState<ComponentType<P> | undefined>(() => loaded)
    const [failed, setFailed] = useState(false)
    const { open, close } = props
    useEffect(() => {
      if (Part) return
      let gone = false
      const get = () =>
        fetched().then(
          (one) => !gone && setPart(() => one),
          () => !gone && setFailed(true),
        )
      if (open) void get()
      const timer = open ? undefined : setTimeout(() => whenIdle(() => void get()), SOON_MS)
      return () => {
        gone = true
        clearTimeout(timer)
      }
    }, [Part, open])
    if (Part) return <Part {...props} />
    if (!open || !failed) return null
    return (
      <div role="alert" className={styles.failed}>
        <p>This part is not on this device yet, and there is no network. Nothing was lost.</p>
        <button type="button" onClick={close}>
          Close
        </button>
      </div>
    )
  }
}

/** Some browsers have no idle callback: then at once. */
const whenIdle = (work: () => void): void => {
  if ('requestIdleCallback' in window) window.requestIdleCallback(work, { timeout: 10_000 })
  else work()
}
