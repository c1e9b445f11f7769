/**
 * `npm run styles`: writes the styles of the component library that the interface uses to `interface/kit/antd/`.
 * The library's own file carries every component and measures 1 MB. The result is checked in;
 * `tests/commands/componentStyles.test.ts` compares it with its source.
 */
import { createCache, extractStyle, StyleProvider } from '@ant-design/cssinjs'
import { extractStyle as renderComponents } from '@ant-design/static-style-extract'
import { ConfigProvider } from 'antd'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import postcss from 'postcss'

/** The style sheets by name: what every page loads, and what a few views load with themselves. */
export const SHEETS: Readonly<Record<string, readonly string[]>> = {
  base: ['App', 'Button', 'Dropdown', 'Empty', 'Input', 'message', 'Modal', 'Segmented'],
  alert: ['Alert'],
  checkbox: ['Checkbox'],
  drawer: ['Drawer'],
  popover: ['Popover'],
  progress: ['Progress'],
  select: ['Select'],
  switch: ['Switch'],
  pickers: ['DatePicker', 'TimePicker'],
  upload: ['Upload'],
  pagination: ['Pagination'],
}

export const sheetFile = (name: string) =>
  join(fileURLToPath(new URL('..', import.meta.url)), 'interface', 'kit', 'antd', `${name}.generated.css`)

/**
 * Classes that no page has: right-to-left text, motion (`theme.ts` switches it off), the palette's named colours, and
 * variants of a component that the interface does not use.
 */
const UNUSED = new RegExp(
  [
    String.raw`-rtl\b`,
    String.raw`ant-(slide|move|zoom|fade|wave|motion)`,
    String.raw`ant-btn-color-(blue|purple|cyan|green|magenta|pink|red|orange|yellow|volcano|geekblue|lime|gold)\b`,
    String.raw`ant-(input-group|input-search|otp|input-otp|btn-group)\b`,
    String.raw`ant-[a-z-]+-(compact|borderless|underlined|filled|customize)\b`,
    String.raw`ant-btn-variant-(dashed|filled)\b`,
    String.raw`ant-message-(stack|bottom|topLeft|topRight|notice-pure-panel)`,
    String.raw`ant-dropdown-menu-submenu`,
    String.raw`pure-panel|PurePanel|ant-progress-(circle|steps|success)|ant-segmented-vertical|ant-alert-banner`,
  ].join('|'),
)

/** The styles of some components, without the tokens: the page sets those for the light it is shown in. */
export function componentStyles(components: readonly string[]): string {
  const cache = createCache()
  renderComponents({
    includes: [...components],
    customTheme: (node) => (
      <StyleProvider cache={cache}>
        <ConfigProvider theme={{ hashed: false, cssVar: { key: 'saddle' } }}>{node}</ConfigProvider>
      </StyleProvider>
    ),
  })
  return withoutUnused(extractStyle(cache, { plain: true, types: 'style' }))
}

/** Drops selectors of `UNUSED`, key frames nothing refers to, and duplicate rules. */
function withoutUnused(css: string): string {
  const sheet = postcss.parse(css)
  const rules = new Set<string>()
  sheet.walkRules((rule) => {
    if (rule.parent?.type === 'atrule' && /keyframes/.test((rule.parent as postcss.AtRule).name)) return
    // What a selector excludes does not have to exist.
    const used = rule.selectors.filter((selector) => !UNUSED.test(selector.replaceAll(/:not\([^)]*\)/g, '')))
    if (used.length === 0) return void rule.remove()
    rule.selector = used.join(',')
    const text = (rule.parent?.type === 'atrule' ? (rule.parent as postcss.AtRule).params : '') + String(rule)
    if (rules.has(text)) rule.remove()
    rules.add(text)
  })
  const left = String(sheet)
  sheet.walkAtRules(/keyframes/, (frames) => {
    if (left.split(frames.params).length <= 2) frames.remove()
  })
  return String(sheet)
}

// With `--check` nothing is written; exits with 1 where a file differs from its source.
if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const isCheck = process.argv.includes('--check')
  for (const [name, components] of Object.entries(SHEETS)) {
    const css = componentStyles(components)
    if (!isCheck) writeFileSync(sheetFile(name), css)
    else if (readFileSync(sheetFile(name), 'utf8') !== css) {
      console.error(`${sheetFile(name)} is not what "npm run styles" writes`)
      process.exitCode = 1
    }
  }
}
