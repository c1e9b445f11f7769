import QRCode from 'qrcode'
import type { MemberLink } from './links'

/** Where a link leads, on this installation. */
export const addressOf = ({ token }: Pick<MemberLink, 'token'>): string =>
  new URL(`/m/${token}`, process.env.BETTER_AUTH_URL ?? 'http://127.0.0.1').toString()

/** A QR code as SVG text, for a page; `L` takes the most text and survives the least dirt. */
export const qrSvg = (text: string, errorCorrectionLevel: 'L' | 'M' = 'M'): Promise<string> =>
  QRCode.toString(text, { type: 'svg', margin: 1, errorCorrectionLevel })

/** The dark squares of a QR code, row by row, for drawing it elsewhere. */
export function qrSquares(text: string): Readonly<{ size: number; dark: (row: number, column: number) => boolean }> {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' })
  return { size: modules.size, dark: (row, column) => modules.get(row, column) === 1 }
}
