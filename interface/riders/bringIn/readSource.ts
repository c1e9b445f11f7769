import { MAX_RIDER_FILE_LENGTH } from '@/core/riders/riderFile/riderFile'

/** What a chosen file holds: the text of a rider's file or code, or why there is none. */
export type Source = Readonly<{ text: string }> | Readonly<{ fault: string }>

/** A picture is looked at no larger than this, px: enough for any code. */
const MAX_PICTURE_PX = 1600
const TOO_LARGE = 'This is larger than any rider’s file. Look whether it is the right one.'

/** Reads a file, or the code in a picture of one. Nothing leaves the device. */
export async function readSource(file: File): Promise<Source> {
  if (file.type.startsWith('image/')) return readPicture(file)
  // Every character is a byte at least.
  if (file.size > 4 * MAX_RIDER_FILE_LENGTH) return { fault: TOO_LARGE }
  return { text: await file.text() }
}

async function readPicture(file: File): Promise<Source> {
  const bitmap = await createImageBitmap(file).catch(() => null)
  if (!bitmap) return { fault: 'This picture cannot be opened here. Try a photograph as JPEG or PNG, or the file.' }
  const scale = Math.min(1, MAX_PICTURE_PX / Math.max(bitmap.width, bitmap.height))
  const [width, height] = [Math.round(scale * bitmap.width), Math.round(scale * bitmap.height)]
  const canvas = Object.assign(document.createElement('canvas'), { width, height })
  const context = canvas.getContext('2d', { willReadFrequently: true })
  if (!context) return { fault: 'This browser cannot look at pictures. Take the file, or paste the text of the code.' }
  context.drawImage(bitmap, 0, 0, width, height)
  bitmap.close()
  const { data } = context.getImageData(0, 0, width, height)
  const { default: readCode } = await import('jsqr')
  const found = readCode(data, width, height)
  return found
    ? { text: found.data }
    : { fault: 'No code was found in this picture. Take it straight on, in even light, the code filling it.' }
}
