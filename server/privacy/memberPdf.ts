import { describeMemberFile, MEMBER_FILE_TEXT } from '../../core/messages/riders/memberFile'
import { formatDate } from '../../core/messages/words/dates'
import { INK, line, MM, newPdf, pdfBytes, type Pdf } from '../classes/cards/draw'
import type { MemberFile } from './memberFile'

const A4 = [210, 297] as const
const MARGIN_MM = 18
const DATE_MM = 26
const WIDTH_MM = A4[0] - 2 * MARGIN_MM
const BOTTOM_MM = A4[1] - 20

/** A member's file as a document to read: A4, a part for each kind of thing, the oldest first. */
export async function memberPdf(file: MemberFile): Promise<Uint8Array> {
  const name = file.rows.members[0].name
  const pdf = newPdf(MEMBER_FILE_TEXT.title(name), A4)
  // Page numbers are written once the number of pages is known.
  pdf.options.bufferPages = true
  const { timeZone } = file.names
  pdf.addPage()
  line(pdf, MEMBER_FILE_TEXT.title(name), { x: MARGIN_MM, y: 18, width: WIDTH_MM }, { size: 20, bold: true })
  const made = MEMBER_FILE_TEXT.made(file.studio, formatDate(file.madeAt, timeZone))
  line(pdf, made, { x: MARGIN_MM, y: 27, width: WIDTH_MM }, { size: 10, colour: INK.soft })
  let y = 38
  for (const { title, lines } of describeMemberFile(file.rows, file.names)) {
    y = withRoom(pdf, y, 16)
    line(pdf, title, { x: MARGIN_MM, y, width: WIDTH_MM }, { size: 12, bold: true })
    y += 7
    if (lines.length === 0) {
      line(pdf, MEMBER_FILE_TEXT.nothing, { x: MARGIN_MM, y, width: WIDTH_MM }, { size: 10, colour: INK.soft })
      y += 6
    }
    for (const { date, text } of lines) y = paragraph(pdf, y, date, text)
    y += 4
  }
  numberPages(pdf)
  return pdfBytes(pdf)
}

/** A line with its day; goes on at the next page where this one is full. Resolves with the place below it, mm. */
function paragraph(pdf: Pdf, y: number, date: string, text: string): number {
  const width = (WIDTH_MM - DATE_MM) * MM
  pdf.font('regular').fontSize(10)
  const tall = pdf.heightOfString(text, { width }) / MM
  const from = withRoom(pdf, y, tall)
  line(pdf, date, { x: MARGIN_MM, y: from, width: DATE_MM - 3 }, { size: 10, colour: INK.soft })
  pdf.font('regular').fontSize(10).fillColor(INK.text)
  pdf.text(text, (MARGIN_MM + DATE_MM) * MM, from * MM, { width })
  return from + tall + 1.6
}

/** The place for something so tall: here, or at the top of a new page; mm. */
function withRoom(pdf: Pdf, y: number, tall: number): number {
  if (y + tall <= BOTTOM_MM) return y
  pdf.addPage()
  return MARGIN_MM
}

function numberPages(pdf: Pdf): void {
  const { start, count } = pdf.bufferedPageRange()
  for (let page = start; page < start + count; page++) {
    pdf.switchToPage(page)
    const text = MEMBER_FILE_TEXT.page(page + 1, count)
    line(pdf, text, { x: MARGIN_MM, y: A4[1] - 13, width: WIDTH_MM, right: true }, { size: 8.5, colour: INK.soft })
  }
}
