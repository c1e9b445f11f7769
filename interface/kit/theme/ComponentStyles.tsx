'use client'
import { createCache, extractStyle, StyleProvider } from '@ant-design/cssinjs'
import { useServerInsertedHTML } from 'next/navigation'
import { useState, type ReactNode } from 'react'

type Cache = ReturnType<typeof createCache>
type Update = Parameters<Cache['opUpdate']>[1]

/** Nothing of it depends on a request: a key names the theme with all its tokens, and the component. */
const computed = new Map<string, ReturnType<Update>>()
/** Two lights of some sixty components are some 130 keys; more would be keys that never come again. */
const MAX_COMPUTED = 1000

/** The library's cache, which starts with what earlier requests computed: tokens and variables of each component. */
function rememberingCache(): Cache {
  const cache = createCache()
  const update = cache.opUpdate.bind(cache)
  cache.opUpdate = (path, change) =>
    update(path, (before) => {
      const after = change(before ?? computed.get(path) ?? null)
      if (!computed.has(path) && computed.size < MAX_COMPUTED) computed.set(path, after)
      return after
    })
  return cache
}

/**
 * Puts the variables of the component library's styles into the page the server sends. The library's own registry
 * does the same, but computes all of them again for every page: a tenth of what a page costs.
 */
export function ComponentStyles({ children }: { children: ReactNode }) {
  const [cache] = useState(() => (typeof window === 'undefined' ? rememberingCache() : createCache()))
  useServerInsertedHTML(() => {
    const css = extractStyle(cache, { plain: true, once: true })
    // Only the library's own map of paths, which is empty where no component came since the last piece.
    if (css.includes('.data-ant-cssinjs-cache-path{content:"";}') && !css.includes('--ant-')) return null
    return (
      <style
        id="antd-cssinjs"
        data-rc-order="prepend"
        data-rc-priority="-1000"
        dangerouslySetInnerHTML={{ __html: css }}
      />
    )
  })
  return <StyleProvider cache={cache}>{children}</StyleProvider>
}
