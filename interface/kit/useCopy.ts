'use client'
import { App } from 'antd'

/** Copies a text, with a message of success or failure. */
export function useCopy(): (text: string) => Promise<void> {
  const { message } = App.useApp()
  return async (text) => {
    try {
      await navigator.clipboard.writeText(text)
      message.info('Copied.', 1.5)
    } catch {
      message.info('This browser does not copy; mark the address and copy it by hand.', 4)
    }
  }
}
