import { axesOf, type BikeType } from '../../../core/bikes/bike/bike'
import type { Marks } from '../../../core/base/conventions'
import { axisTitle } from '../../../core/messages/words/phrases'
import { CARD_TEXT, formatSheetTime, formatSheetTitle } from '../../../core/messages/studio/cards'
import { MEMBER_CAUTIONS } from '../../../core/messages/riders/memberPage'
import { INK, line, MM, newPdf, numbersBlock, pdfBytes, qrCode, type Box, type Pdf } from './draw'

/** A rider's numbers on a card. */
export type Card = Readonly<{
  studio: string
  name: string
  bikeType: BikeType
  marks: Marks
  /** "Usual" is not printed. */
  purpose: string | null
  sure: string
  date: string
  /** Where the QR code leads: the rider's own page; null without one. */
  address: string | null
}>

/** The card's outline of banks and libraries (ISO/IEC 7810, ID-1, from memory), mm. */
const WALLET = [85.6, 53.98] as const
const A4 = [210, 297] as const

/** A card for the wallet, one a set of numbers: front with the numbers, back with the cautions and the QR code. */
export async function walletCards(cards: readonly Card[]): Promise<Uint8Array> {
  const pdf = newPdf(CARD_TEXT.card, WALLET)
  for (const card of cards) {
    pdf.addPage()
    front(pdf, card, { x: 4.5, y: 4, width: WALLET[0] - 9 })
    pdf.addPage()
    back(pdf, card)
  }
  return pdfBytes(pdf)
}

function front(pdf: Pdf, card: Card, { x, y, width }: Readonly<{ x: number; y: number; width: number }>): void {
  line(pdf, card.name, { x, y, width: width * 0.68 }, { size: 12, bold: true })
  line(pdf, card.studio, { x: x + width * 0.7, y: y + 0.8, width: width * 0.3 }, { size: 7, colour: INK.soft })
  const what = card.purpose ? `${card.bikeType.name}, ${card.purpose.toLowerCase()}` : card.bikeType.name
  line(pdf, what, { x, y: y + 6, width }, { size: 9, colour: INK.act, bold: true })
  numbersBlock(pdf, card.bikeType, card.marks, { x, y: y + 12, width, size: 42 })
  line(pdf, `${card.sure}, ${card.date}`, { x, y: y + 40, width }, { size: 6.5, colour: INK.soft })
  line(pdf, CARD_TEXT.closePins, { x, y: y + 43.2, width }, { size: 6.5, colour: INK.soft })
}

function back(pdf: Pdf, card: Card): void {
  const wide = card.address ? 46 : WALLET[0] - 9
  let y = 4
  for (const caution of MEMBER_CAUTIONS) {
    pdf.font('regular').fontSize(5.2).fillColor(INK.text)
    pdf.text(caution, 4.5 * MM, y * MM, { width: wide * MM, lineGap: 0.4 })
    y = pdf.y / MM + 0.9
  }
  if (!card.address) return
  qrCode(pdf, card.address, { x: WALLET[0] - 34, y: 9, width: 30 })
  line(pdf, CARD_TEXT.onPhone, { x: WALLET[0] - 33, y: 40.5, width: 29 }, { size: 6, colour: INK.soft })
}

/** A bike on a class sheet. */
export type SheetRow = Readonly<{
  number: number
  bikeType: BikeType
  name: string | null
  marks: Marks | null
  /** "measured", "told"; null without numbers. */
  sure: string | null
  remark: string | null
}>

/** Under the name: the type, how sure the numbers are, and a remark. */
const under = ({ bikeType, sure, remark }: SheetRow): string => [bikeType.name, sure, remark].filter(Boolean).join(', ')

const TOP_MM = 25
const FOOT_MM = 12
/** 24 bikes on one page. */
const MIN_ROW_MM = (A4[1] - TOP_MM - FOOT_MM) / 24
const MAX_ROW_MM = 17.5

/**
 * The bikes of a class on A4, 24 a page, with the numbers to set; empty boxes for the numbers of a newcomer. `made`:
 * the time at which the sheet was made, as the studio's clock shows it.
 */
export async function classSheet(
  studio: string,
  day: string,
  rows: readonly SheetRow[],
  made: string,
): Promise<Uint8Array> {
  const pdf = newPdf(formatSheetTitle(day), A4)
  const rowMm = Math.min(MAX_ROW_MM, Math.max(MIN_ROW_MM, (A4[1] - TOP_MM - FOOT_MM) / Math.max(1, rows.length)))
  const fit = Math.floor((A4[1] - TOP_MM - FOOT_MM) / rowMm + 1e-6)
  for (let from = 0; from === 0 || from < rows.length; from += fit) {
    pdf.addPage()
    line(pdf, studio, { x: 14, y: 8, width: 76 }, { size: 18, bold: true })
    line(pdf, day, { x: 92, y: 8.5, width: 104, right: true }, { size: 11, bold: true })
    line(pdf, formatSheetTime(made), { x: 92, y: 14.5, width: 104, right: true }, { size: 9, colour: INK.soft })
    if (rows.length === 0) line(pdf, CARD_TEXT.nobody, { x: 14, y: TOP_MM, width: 180 }, { size: 12 })
    rows.slice(from, from + fit).forEach((row, i) => sheetRow(pdf, row, TOP_MM + i * rowMm, rowMm))
    line(
      pdf,
      `${CARD_TEXT.closePins} ${CARD_TEXT.stopWheel}`,
      { x: 14, y: A4[1] - 8, width: 182 },
      { size: 7, colour: INK.soft },
    )
  }
  return pdfBytes(pdf)
}

function sheetRow(pdf: Pdf, row: SheetRow, y: number, rowMm: number): void {
  const { number, bikeType, name, marks } = row
  const isTall = rowMm > 14
  pdf
    .lineWidth(0.4)
    .strokeColor(INK.line)
    .moveTo(14 * MM, (y - 1) * MM)
    .lineTo(196 * MM, (y - 1) * MM)
    .stroke()
  line(pdf, String(number), { x: 14, y, width: 14 }, { size: isTall ? 26 : 22, bold: true })
  line(
    pdf,
    name ?? 'free',
    { x: 30, y: y + 0.3, width: 52 },
    { size: isTall ? 13 : 12, bold: name !== null, colour: name ? INK.text : INK.soft },
  )
  line(pdf, under(row), { x: 30, y: y + (isTall ? 7 : 5.4), width: 52 }, { size: 8, colour: INK.soft })
  if (marks) numbersBlock(pdf, bikeType, marks, { x: 86, y: y - 0.4, width: 112, size: 16, strip: isTall })
  else if (name) boxes(pdf, bikeType, { x: 86, y: y + 0.4, width: 112 }, rowMm - 2.6)
}

/** An empty box for each number of a type, with its name, to write into. */
function boxes(pdf: Pdf, bikeType: BikeType, { x, y, width }: Box, tallMm: number): void {
  const axes = axesOf(bikeType)
  const column = width / Math.max(4, axes.length)
  axes.forEach((axis, i) => {
    const left = x + i * column
    line(pdf, axisTitle(bikeType, axis), { x: left, y, width: column - 4 }, { size: 7, colour: INK.soft })
    pdf
      .lineWidth(0.6)
      .strokeColor(INK.soft)
      .rect(left * MM, (y + 3) * MM, (column - 5) * MM, (tallMm - 3) * MM)
      .stroke()
  })
}

/** Tags to hang on the bikes of a class, ten on an A4 sheet, to be cut along the lines. */
export async function bikeTags(day: string, rows: readonly SheetRow[]): Promise<Uint8Array> {
  const pdf = newPdf(CARD_TEXT.tags, A4)
  const [across, down] = [2, 5]
  const [width, height] = [A4[0] / across, A4[1] / down]
  const taken = rows.filter((row) => row.name !== null)
  for (let from = 0; from === 0 || from < taken.length; from += across * down) {
    pdf.addPage()
    if (taken.length === 0) line(pdf, CARD_TEXT.nobody, { x: 14, y: 20, width: 180 }, { size: 12 })
    taken.slice(from, from + across * down).forEach((row, i) => {
      const [x, y] = [(i % across) * width, Math.floor(i / across) * height]
      pdf.lineWidth(0.3).dash(2, { space: 2 }).strokeColor(INK.line)
      pdf
        .rect(x * MM, y * MM, width * MM, height * MM)
        .stroke()
        .undash()
      line(pdf, String(row.number), { x: x + 6, y: y + 5, width: 18 }, { size: 30, bold: true, colour: INK.act })
      line(pdf, row.name!, { x: x + 26, y: y + 5.5, width: width - 32 }, { size: 14, bold: true })
      line(pdf, under(row), { x: x + 26, y: y + 12, width: width - 32 }, { size: 8, colour: INK.soft })
      if (row.marks) numbersBlock(pdf, row.bikeType, row.marks, { x: x + 6, y: y + 21, width: width - 10, size: 32 })
      else line(pdf, CARD_TEXT.noNumbers, { x: x + 6, y: y + 26, width: 60 }, { size: 12, colour: INK.soft })
      line(
        pdf,
        `${day}. ${CARD_TEXT.closePins}`,
        { x: x + 6, y: y + height - 8, width: width - 12 },
        { size: 6.5, colour: INK.soft },
      )
    })
  }
  return pdfBytes(pdf)
}

/** A machine as its printed code shows it; `address`: the page the code opens, `code`: to be typed instead. */
export type BikeCode = Readonly<{ number: number; type: string; code: string; address: string }>

/** Codes to stick on the machines, twenty-one on an A4 sheet, to be cut along the lines. */
export async function bikeCodes(codes: readonly BikeCode[]): Promise<Uint8Array> {
  const pdf = newPdf(CARD_TEXT.codes, A4)
  const [across, down] = [3, 7]
  const [width, height] = [A4[0] / across, A4[1] / down]
  for (let from = 0; from === 0 || from < codes.length; from += across * down) {
    pdf.addPage()
    codes.slice(from, from + across * down).forEach(({ number, type, code, address }, i) => {
      const [x, y] = [(i % across) * width, Math.floor(i / across) * height]
      pdf.lineWidth(0.3).dash(2, { space: 2 }).strokeColor(INK.line)
      pdf
        .rect(x * MM, y * MM, width * MM, height * MM)
        .stroke()
        .undash()
      qrCode(pdf, address, { x: x + 3, y: y + (height - 34) / 2, width: 34 })
      line(pdf, String(number), { x: x + 39, y: y + 9, width: width - 42 }, { size: 40, bold: true, colour: INK.act })
      line(pdf, type, { x: x + 39, y: y + 24, width: width - 42 }, { size: 9, colour: INK.soft })
      line(pdf, code, { x: x + 39, y: y + 30, width: width - 42 }, { size: 9, bold: true })
      line(pdf, CARD_TEXT.scan, { x: x + 39, y: y + 34.5, width: width - 41 }, { size: 6, colour: INK.soft })
    })
  }
  return pdfBytes(pdf)
}
