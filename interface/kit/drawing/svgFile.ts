/** Style properties copied into a drawing's own file, with their defaults. */
const TAKEN: Readonly<Record<string, string>> = {
  fill: 'rgb(0, 0, 0)',
  'fill-opacity': '1',
  stroke: 'none',
  'stroke-width': '1px',
  'stroke-linecap': 'butt',
  'stroke-linejoin': 'miter',
  'stroke-dasharray': 'none',
  'stroke-opacity': '1',
  opacity: '1',
  'paint-order': 'normal',
  'font-family': '',
  'font-size': '',
  'font-weight': '400',
  'text-anchor': 'start',
}

/**
 * A drawing as it looks on the page, as the text of an SVG file of its own: styles and colours of the light at hand
 * written into it, its ground behind it, one unit of the drawing a pixel.
 */
export function svgText(svg: SVGSVGElement): string {
  const alone = svg.cloneNode(true) as SVGSVGElement
  const [theirs, own] = [svg, alone].map((one) => [one, ...one.querySelectorAll('*')])
  theirs.forEach((element, i) => {
    const computed = getComputedStyle(element)
    const style = Object.entries(TAKEN).flatMap(([name, usual]) => {
      const value = computed.getPropertyValue(name)
      const isText = element.tagName === 'text' || element.tagName === 'tspan'
      const meant = (/^font|^text/.test(name) ? isText : true) && value !== '' && value !== usual
      return meant ? [`${name}:${value.replaceAll('"', "'")}`] : []
    })
    own[i].removeAttribute('class')
    if (style.length > 0) own[i].setAttribute('style', style.join(';'))
  })
  const [x, y, width, height] = svg.getAttribute('viewBox')!.split(' ')
  const ground = document.createElementNS(SVG, 'rect')
  const colour = getComputedStyle(document.body).backgroundColor
  for (const [name, value] of Object.entries({ x, y, width, height, fill: colour })) ground.setAttribute(name, value)
  alone.prepend(ground)
  alone.setAttribute('xmlns', SVG)
  alone.setAttribute('width', width)
  alone.setAttribute('height', height)
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(alone)}\n`
}
const SVG = 'http://www.w3.org/2000/svg'

/** Hands a drawing to the browser as a file. */
export function saveSvg(svg: SVGSVGElement, name: string): void {
  const url = URL.createObjectURL(new Blob([svgText(svg)], { type: 'image/svg+xml' }))
  Object.assign(document.createElement('a'), { href: url, download: `${name}.svg` }).click()
  URL.revokeObjectURL(url)
}
