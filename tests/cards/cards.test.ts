/** @jest-environment node */
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import jsQR from 'jsqr'
import { TYPES } from '@/scripts/netloftHall'
import { bikeCodes, bikeTags, classSheet, walletCards, type Card } from '@/server/classes/cards/cards'

const marks = { seatHeight: '7.5', seatSlide: 'C', barHeight: '5', barSlide: '2' }
const card: Card = {
  studio: 'Netloft Hall',
  name: 'Maren Tolle',
  bikeType: TYPES.sorrel,
  marks,
  purpose: null,
  sure: 'Measured on the bike',
  date: 'Mon 23 Nov 2026',
  address: 'https://netloft-hall.example/m/Zm9vYmFyYmF6cXV4Zm9vYmFyYmF6cXV4Zm9vYmFyYmF6cXV4',
}

/** A PDF read by another library than wrote it (pdfjs-dist), in a process of its own: its text and its pictures. */
async function read(bytes: Uint8Array) {
  const out = execFileSync(process.execPath, [join(__dirname, 'readPdf.mjs')], { input: bytes, maxBuffer: 2e8 })
  const pages = JSON.parse(out.toString()) as { size: [number, number]; text: string[]; png: string }[]
  async function picture(i: number) {
    const image = await loadImage(Buffer.from(pages[i].png, 'base64'))
    const context = createCanvas(image.width, image.height).getContext('2d')
    context.drawImage(image, 0, 0)
    return context.getImageData(0, 0, image.width, image.height)
  }
  return { pages, text: pages.map((page) => page.text), picture }
}
const inMm = (points: number) => (points / 72) * 25.4

test('a card for the wallet: the size of bank cards, named numbers, how sure, a code that reads', async () => {
  const { pages, text, picture } = await read(await walletCards([card]))
  expect(pages.map((page) => page.size.map((side) => Number(inMm(side).toFixed(1))))).toEqual([
    [85.6, 54],
    [85.6, 54],
  ])
  for (const said of [
    'Maren Tolle',
    'Sorrel',
    'Seat height',
    '7½',
    'C',
    '5',
    '2',
    'Measured on the bike, Mon 23 Nov 2026',
  ])
    expect(text[0]).toContain(said)
  expect(text[1].join(' ')).toMatch(/Direct drive/)
  const { data, width, height } = await picture(1)
  expect(jsQR(new Uint8ClampedArray(data), width, height)?.data).toBe(card.address)
})

test('the fonts are in the file, so that it looks the same on every printer', async () => {
  const text = Buffer.from(await walletCards([card])).toString('latin1')
  expect(text.match(/\/FontFile[23]? /g)?.length).toBeGreaterThanOrEqual(2)
  expect(text).toMatch(/\/BaseFont \/[A-Z]{6}\+Archivo/)
})

test('nothing on a card lies beyond its edge, also of the longest name', async () => {
  const long = {
    ...card,
    name: 'Quentin Aldous Marlowe-Thornbury of the Upper Netherby Lofts',
    purpose: 'As on the road bike',
  }
  const { picture } = await read(await walletCards([long]))
  const { data, width, height } = await picture(0)
  const inked = (x: number, y: number) => data[4 * (y * width + x)] < 200
  const edge = Math.round(2 * 4 * (72 / 25.4))
  for (let y = 0; y < height; y += 1) {
    expect(inked(width - edge, y)).toBe(false)
    expect(inked(edge, y)).toBe(false)
  }
})

const rows = Array.from({ length: 24 }, (_, i) => ({
  number: i + 1,
  bikeType: Object.values(TYPES)[i % 3],
  name: i % 4 === 3 ? null : `Rider ${i + 1}`,
  marks: i % 5 === 4 || Object.values(TYPES)[i % 3] !== TYPES.sorrel ? null : marks,
  sure: i === 0 ? 'measured' : null,
  remark: i === 0 ? 'post reads low' : null,
}))

test('a class of 24 on one A4 page, of more on two: every bike once, boxes for a newcomer’s numbers', async () => {
  const { pages, text } = await read(await classSheet('Netloft Hall', 'Mon 23 Nov 2026', rows, '17:41'))
  expect(pages.length).toBe(1)
  const more = [...rows, { ...rows[0], number: 25 }]
  expect((await read(await classSheet('Netloft Hall', 'Mon 23 Nov 2026', more, '17:41'))).pages.length).toBe(2)
  expect(text[0]).toContain('As of 17:41')
  const named = rows.filter(({ name, marks: set }) => name !== null || set)
  expect(text[0].filter((one) => one === 'Seat height')).toHaveLength(named.length)
  const all = text.flat()
  for (const { number, name } of rows) {
    expect(all).toContain(String(number))
    if (name) expect(all.filter((one) => one === name)).toHaveLength(1)
  }
  expect(all).toContain('Sorrel, measured, post reads low')
})

test('tags for the bikes that are taken, ten a sheet; an empty class gives a sheet with a note', async () => {
  const { pages, text } = await read(await bikeTags('Mon 23 Nov 2026', rows))
  expect(pages).toHaveLength(2)
  expect(text.flat().filter((one) => /^Rider/.test(one))).toHaveLength(18)
  expect((await read(await bikeTags('today', []))).text.flat()).toContain('Nobody sits anywhere yet.')
  expect((await read(await classSheet('Netloft Hall', 'today', [], '17:41'))).text.flat()).toContain(
    'Nobody sits anywhere yet.',
  )
})

test('codes for the bikes: twenty-one a sheet, each opens the page of the machine of its number', async () => {
  const codes = Array.from({ length: 23 }, (_, i) => ({
    number: i + 1,
    type: 'Sorrel',
    code: `abcde fgh${10 + i}`,
    address: `https://netloft-hall.example/b/abcdefgh${10 + i}`,
  }))
  const { pages, text, picture } = await read(await bikeCodes(codes))
  expect(pages.map((page) => page.text.filter((one) => one === 'Sorrel').length)).toEqual([21, 2])
  expect(text[1]).toEqual(expect.arrayContaining(['22', '23', 'abcde fgh31']))
  const sheet = await picture(1)
  const third = { width: Math.floor(sheet.width / 3), height: Math.floor(sheet.height / 7) }
  const cut = (column: number) => {
    const canvas = createCanvas(sheet.width, sheet.height)
    const context = canvas.getContext('2d')
    context.putImageData(sheet, 0, 0)
    return context.getImageData(column * third.width, 0, third.width, third.height)
  }
  const read22 = [0, 1].map((column) => {
    const { data, width, height } = cut(column)
    return jsQR(new Uint8ClampedArray(data), width, height)?.data
  })
  expect(read22).toEqual([codes[21].address, codes[22].address])
})
