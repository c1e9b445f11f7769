import type { ComponentProps } from 'react'
import styles from './barButton.module.css'

/** A button of the bar on every page: plain, so that pages without the component library have it too. */
export function BarButton({ className = '', ...props }: ComponentProps<'button'>) {
  return <button type="button" className={`${styles.button} ${className}`} {...props} />
}
