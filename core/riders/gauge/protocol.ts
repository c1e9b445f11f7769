/** One line of an angle gauge: a reading, or that its signal was lost (docs/angle-gauge.md). */
export type GaugeEvent =
  | Readonly<{ kind: 'reading'; seq: number; deg: number; side: 'left' | 'right'; axis: string; batteryPct: number }>
  | Readonly<{ kind: 'lost'; seq: number }>

/** No leg bends more or overstretches further: such a reading is a gauge that slipped, degrees. */
const POSSIBLE_DEG = [-25, 160] as const

/** An event of the stream as sent, or null for one that no gauge sends. */
export function parseGaugeEvent(event: string, data: string): GaugeEvent | null {
  let sent: Record<string, unknown>
  try {
    sent = JSON.parse(data) as Record<string, unknown>
  } catch {
    return null
  }
  if (typeof sent !== 'object' || sent === null || !Number.isInteger(sent.seq)) return null
  const seq = sent.seq as number
  if (event === 'lost') return { kind: 'lost', seq }
  const { deg, side, axis, batteryPct } = sent
  if (event !== 'reading' || typeof deg !== 'number' || !(deg >= POSSIBLE_DEG[0] && deg <= POSSIBLE_DEG[1])) return null
  if ((side !== 'left' && side !== 'right') || typeof axis !== 'string') return null
  return { kind: 'reading', seq, deg, side, axis, batteryPct: typeof batteryPct === 'number' ? batteryPct : 100 }
}

/** Current reading of a gauge, and the samples so far. */
export type GaugeState = Readonly<{
  signal: 'none' | 'live' | 'lost'
  last: Extract<GaugeEvent, { kind: 'reading' }> | null
  /** Readings while the button is pressed; null otherwise. */
  held: readonly number[] | null
  /** The mean of each still interval. */
  takes: readonly number[]
  /** The last still interval was too short or too unsteady for a sample. */
  refused: 'short' | 'moving' | null
}>

export const NO_GAUGE: GaugeState = { signal: 'none', last: null, held: null, takes: [], refused: null }

/**
 * Minimum readings and maximum standard deviation of a still interval, degrees: a leg that does not move. Assumptions.
 */
const MIN_READINGS = 3
const MAX_SD_DEG = 4
/** Number of samples for mean and standard deviation. */
export const SAMPLES = 3

export type GaugeAction = GaugeEvent | Readonly<{ kind: 'hold' | 'release' | 'gone' | 'forget' }>

/** A gauge's state after one more event or touch. What was taken outlives a lost signal. */
export function gaugeAfter(state: GaugeState, action: GaugeAction): GaugeState {
  switch (action.kind) {
    case 'reading':
      return {
        ...state,
        signal: 'live',
        last: action,
        held: state.held && action.axis === 'knee' ? [...state.held, action.deg] : state.held,
      }
    case 'lost':
    case 'gone':
      return { ...state, signal: state.signal === 'none' ? 'none' : 'lost', last: null, held: null }
    case 'hold':
      return state.signal === 'live' ? { ...state, held: [], refused: null } : state
    case 'release':
      return released(state)
    case 'forget':
      return { ...state, takes: [], refused: null, held: null }
  }
}

function released(state: GaugeState): GaugeState {
  if (!state.held) return state
  const sorted = [...state.held].sort((a, b) => a - b)
  if (sorted.length < MIN_READINGS) return { ...state, held: null, refused: 'short' }
  if (sorted[sorted.length - 1] - sorted[0] > MAX_SD_DEG) return { ...state, held: null, refused: 'moving' }
  const middle = (sorted[Math.floor((sorted.length - 1) / 2)] + sorted[Math.ceil((sorted.length - 1) / 2)]) / 2
  return { ...state, held: null, refused: null, takes: [...state.takes, middle].slice(-SAMPLES) }
}

/** Mean and standard deviation of the samples; null before the first. */
export function meanReading({ takes }: GaugeState): Readonly<{ deg: number; sd: number }> | null {
  if (takes.length === 0) return null
  const deg = takes.reduce((a, b) => a + b, 0) / takes.length
  const sd = takes.length < 2 ? 0 : Math.sqrt(takes.reduce((s, t) => s + (t - deg) ** 2, 0) / (takes.length - 1))
  return { deg: Math.round(10 * deg) / 10, sd }
}
