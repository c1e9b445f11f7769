import type { ImportOutcome } from '@/server/files/importMembers'
import type { ListPreview } from '@/server/files/files'
import type { ProgressMessage } from '@/server/platform/http/progressStream'

/** What became of a chosen file. */
export type Chosen =
  | Readonly<{ outcome: 'kept'; id: string; bytes: number; kind: 'archive' }>
  | Readonly<{ outcome: 'kept'; id: string; bytes: number; kind: 'list'; preview: ListPreview }>
export type Refused = Readonly<{ outcome: 'refused'; say: string }>

const UNREACHED: Refused = {
  outcome: 'refused',
  say: 'The studio’s server cannot be reached. Nothing was written; try again.',
}

/** Uploads a file unchanged, to be examined. */
export async function sendFile(file: File, signal: AbortSignal): Promise<Chosen | Refused> {
  try {
    const response = await fetch('/api/files', {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: file,
      signal,
    })
    return (await response.json()) as Chosen | Refused
  } catch {
    return signal.aborted ? { outcome: 'refused', say: 'Stopped; nothing was written.' } : UNREACHED
  }
}

/** The response was lost: the request may have been carried out. */
const LOST: Refused = {
  outcome: 'refused',
  say: 'The answer was lost on its way. Ask again: what is there already is not written twice.',
}

/** Runs a long request on an uploaded file; `progress` gets the finished share. */
export async function requestFile<Result = ImportOutcome>(
  id: string,
  body: object,
  progress: (share: number) => void,
  signal: AbortSignal,
): Promise<Result | Refused> {
  try {
    const response = await fetch(`/api/files/${id}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
      signal,
    })
    if (!response.ok || !response.body) return (await response.json()) as Refused
    const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
    let text = ''
    for (;;) {
      const { value, done } = await reader.read()
      if (done) return LOST
      text += value
      const lines = text.split('\n')
      text = lines.pop()!
      for (const line of lines) {
        const message = JSON.parse(line) as ProgressMessage<Result>
        if ('result' in message) return message.result
        progress(message.done / Math.max(1, message.of))
      }
    }
  } catch {
    return signal.aborted ? { outcome: 'refused', say: 'Stopped; nothing was written.' } : LOST
  }
}
