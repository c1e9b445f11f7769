import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import PDFDocument from 'pdfkit'
import { axesOf, axisOf, type BikeType } from '../../../core/bikes/bike/bike'
import type { AxisName, Label, Marks } from '../../../core/base/conventions'
import { formatLabel } from '../../../core/messages/words/labels'
import { axisTitle } from '../../../core/messages/words/phrases'
import { stripOf } from '../../../core/bikes/scale/strip'
import { qrSquares } from '../../riders/memberPage/qr'

export type Pdf = InstanceType<typeof PDFDocument>

/** PDF points a millimetre. */
export const MM = 72 / 25.4
const FONTS = { regular: 'archivo-latin-400-normal.woff', bold: 'archivo-latin-700-normal.woff' } as const
/** Ink of the cards: dark enough for any printer, one colour for the marks to set. */
export const INK = Object.freeze({ text: '#1b2628', soft: '#546063', line: '#b4bdb8', act: '#a83f06' })

/** A document with the fonts of this product embedded. */
export function newPdf(title: string, size: readonly [number, number]): Pdf {
  const pdf = new PDFDocument({
    size: [size[0] * MM, size[1] * MM],
    margin: 0,
    autoFirstPage: false,
    info: { Title: title, Creator: 'Yielding Saddle' },
  })
  for (const [name, file] of Object.entries(FONTS))
    pdf.registerFont(
      name,
      // Read as bytes: a build moves files about, a folder of packages stays.
      readFileSync(join(process.cwd(), 'node_modules/@fontsource/archivo/files', file)),
    )
  return pdf
}

/** The bytes of a document once it is ended. */
export async function pdfBytes(pdf: Pdf): Promise<Uint8Array> {
  const chunks: Buffer[] = []
  pdf.on('data', (chunk: Buffer) => chunks.push(chunk))
  const whole = new Promise<void>((resolve, reject) => {
    pdf.on('end', resolve)
    pdf.on('error', reject)
  })
  pdf.end()
  await whole
  return new Uint8Array(Buffer.concat(chunks))
}

export type Box = Readonly<{ x: number; y: number; width: number; right?: boolean }>

/** Text on one line, shrunk until it fits; mm. */
export function line(
  pdf: Pdf,
  text: string,
  { x, y, width, right = false }: Box,
  { size, bold = false, colour = INK.text }: Readonly<{ size: number; bold?: boolean; colour?: string }>,
): void {
  pdf.font(bold ? 'bold' : 'regular')
  let points = size
  while (points > 5 && pdf.fontSize(points).widthOfString(text) > width * MM) points -= 0.5
  const from = x * MM + (right ? width * MM - pdf.fontSize(points).widthOfString(text) : 0)
  pdf
    .fontSize(points)
    .fillColor(colour)
    .text(text, from, y * MM, { lineBreak: false })
}

/**
 * The numbers beside each other, each with its name over it and, with `strip`, its scale below; mm. More than four are
 * as much smaller.
 */
export function numbersBlock(
  pdf: Pdf,
  bikeType: BikeType,
  marks: Marks,
  { x, y, width, size: sizeOfFour, strip = true }: Box & Readonly<{ size: number; strip?: boolean }>,
): void {
  const axes = axesOf(bikeType)
  const columns = Math.max(4, axes.length)
  const column = width / columns
  const size = (sizeOfFour * 4) / columns
  const tall = size / MM
  axes.forEach((axis, i) => {
    const label = marks[axis]
    const box = { x: x + i * column, y, width: column - 2.5 }
    line(pdf, axisTitle(bikeType, axis), box, { size: Math.max(6, size / 5), colour: INK.soft })
    const text = label === undefined ? '–' : formatLabel(bikeType, axis, label)
    line(pdf, text, { ...box, y: y + 1.2 + size / 14 }, { size, bold: true })
    if (strip) scaleStrip(pdf, bikeType, axis, label, { ...box, y: y + 3.4 + size / 14 + tall })
  })
}

/** A scale as printed on the bike, the mark to set filled; mm. */
function scaleStrip(
  pdf: Pdf,
  bikeType: BikeType,
  axis: AxisName,
  label: Label | undefined,
  { x, y, width }: Box,
): void {
  const { ticks, setAt } = stripOf(axisOf(bikeType, axis)!.scale, label)
  const place = (at: number) => (x + 1 + at * (width - 2)) * MM
  const rail = y * MM
  pdf.lineWidth(1.2).strokeColor(INK.line).moveTo(place(0), rail).lineTo(place(1), rail).stroke()
  pdf.lineWidth(0.4).strokeColor(INK.soft)
  for (const tick of ticks) {
    const half = (tick.half ? 0.6 : 1.1) * MM
    pdf
      .moveTo(place(tick.at), rail - half)
      .lineTo(place(tick.at), rail + half)
      .stroke()
  }
  const clear = (at: number) => setAt === null || Math.abs(at - setAt) > CLEAR
  const written = ticks.filter(
    ({ at, written: text }) => text && (at === setAt || ((at === 0 || at === 1) && clear(at))),
  )
  pdf.font('regular').fontSize(4.5).fillColor(INK.soft)
  for (const tick of written) {
    const text = formatLabel(bikeType, axis, tick.label)
    pdf.text(text, place(tick.at) - pdf.widthOfString(text) / 2, rail + 1.5 * MM, { lineBreak: false })
  }
  if (setAt !== null) pdf.circle(place(setAt), rail, 1.1 * MM).fill(INK.act)
}

/** A label at an end is left out where the set one is this near, as a share of the strip. */
const CLEAR = 0.16

/** A QR code with its quiet zone, mm. */
export function qrCode(pdf: Pdf, text: string, { x, y, width }: Box): void {
  const { size, dark } = qrSquares(text)
  const square = (width * MM) / (size + 2 * QUIET)
  const at = (i: number) => (i + QUIET) * square
  pdf.rect(x * MM, y * MM, width * MM, width * MM).fill('#ffffff')
  for (let row = 0; row < size; row++)
    for (let column = 0; column < size; column++)
      if (dark(row, column)) pdf.rect(x * MM + at(column), y * MM + at(row), square, square)
  pdf.fill('#000000')
}
/** Squares left white around a QR code (ISO/IEC 18004 requires four, from memory). */
const QUIET = 4
