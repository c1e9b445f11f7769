/** Reads a PDF from standard input by another library than wrote it: sizes in points, text, pages as PNG (base64). */
import { createCanvas, DOMMatrix, ImageData, Path2D } from '@napi-rs/canvas'

// The reader draws with what a browser has; here it has to be of the same make as the canvas.
Object.assign(globalThis, { DOMMatrix, ImageData, Path2D })
const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs')

const SCALE = 4
const chunks = []
for await (const chunk of process.stdin) chunks.push(chunk)
const document = await getDocument({ data: new Uint8Array(Buffer.concat(chunks)), verbosity: 0 }).promise
const pages = []
for (let i = 1; i <= document.numPages; i++) {
  const page = await document.getPage(i)
  const { items } = await page.getTextContent()
  const viewport = page.getViewport({ scale: SCALE })
  const canvas = createCanvas(viewport.width, viewport.height)
  await page.render({ canvas: null, canvasContext: canvas.getContext('2d'), viewport }).promise
  pages.push({
    size: page.view.slice(2),
    text: items.flatMap((item) => ((item.str ?? '').trim() === '' ? [] : [item.str])),
    png: canvas.toBuffer('image/png').toString('base64'),
  })
}
process.stdout.write(JSON.stringify(pages))
