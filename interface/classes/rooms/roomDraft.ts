import {
  arrangeInRows,
  snapDeg,
  snapM,
  withinRoom,
  type RoomPlan,
  type FloorPosition,
} from '@/core/classes/planning/roomPlan'

/** Things in a room besides the bikes. */
export const FIXTURES = ['instructor', 'screen', 'door', 'fan'] as const
export type Fixture = (typeof FIXTURES)[number]
const LIST = { screen: 'screens', door: 'doors', fan: 'fans' } as const

/** Anything that can be picked up: "bike:<id>", "instructor", "screen:0". */
export type ThingKey = string

export type Draft = Readonly<{
  name: string
  plan: RoomPlan
  places: Readonly<Record<string, FloorPosition>>
}>

export type DraftAction =
  | Readonly<{ kind: 'move'; key: ThingKey; byXM: number; byYM: number; snap?: boolean }>
  | Readonly<{ kind: 'turn'; key: ThingKey; byDeg: number }>
  | Readonly<{ kind: 'place'; bikeId: string }>
  | Readonly<{ kind: 'takeOut'; key: ThingKey }>
  | Readonly<{ kind: 'add'; what: Exclude<Fixture, 'instructor'> }>
  | Readonly<{ kind: 'size'; widthM: number; depthM: number }>
  | Readonly<{ kind: 'rename'; name: string }>
  | Readonly<{ kind: 'arrange'; bikeIds: readonly string[] }>
  | Readonly<{ kind: 'undo' }>

/** A draft with what it was before, the latest last. */
export type Drafting = Readonly<{ draft: Draft; before: readonly Draft[] }>

const MAX_UNDONE = 100

export function afterDraft(state: Drafting, action: DraftAction): Drafting {
  if (action.kind === 'undo') {
    const last = state.before[state.before.length - 1]
    return last ? { draft: last, before: state.before.slice(0, -1) } : state
  }
  const draft = changed(state.draft, action)
  return draft === state.draft ? state : { draft, before: [...state.before, state.draft].slice(-MAX_UNDONE) }
}

function changed(draft: Draft, action: Exclude<DraftAction, { kind: 'undo' }>): Draft {
  const { plan, places } = draft
  switch (action.kind) {
    case 'rename':
      return { ...draft, name: action.name }
    case 'size': {
      const sized = { ...plan, widthM: action.widthM, depthM: action.depthM }
      const clamped = Object.entries(places).map(([id, place]) => [id, withinRoom(sized, place)] as const)
      const inside = (list: readonly Readonly<{ xM: number; yM: number }>[]) => list.map((at) => within(sized, at))
      return {
        ...draft,
        places: Object.fromEntries(clamped),
        plan: {
          ...sized,
          instructor: within(sized, plan.instructor),
          screens: inside(plan.screens),
          doors: inside(plan.doors),
          fans: inside(plan.fans),
        },
      }
    }
    case 'arrange':
      return {
        ...draft,
        places: Object.fromEntries(arrangeInRows(plan, action.bikeIds).map(({ id, ...place }) => [id, place])),
      }
    case 'place': {
      const place = { ...withinRoom(plan, freeSpot(draft)), headingDeg: 0 }
      return { ...draft, places: { ...places, [action.bikeId]: place } }
    }
    case 'add': {
      const list = LIST[action.what]
      if (plan[list].length >= 12) return draft
      return { ...draft, plan: { ...plan, [list]: [...plan[list], { xM: plan.widthM / 2, yM: plan.depthM / 2 }] } }
    }
    case 'takeOut':
      return withoutThing(draft, action.key)
    case 'turn': {
      const [kind, id] = action.key.split(':')
      if (kind !== 'bike' || !places[id]) return draft
      const headingDeg = snapDeg(places[id].headingDeg + action.byDeg)
      return { ...draft, places: { ...places, [id]: { ...places[id], headingDeg } } }
    }
    case 'move':
      return moved(draft, action)
  }
}

const within = (plan: RoomPlan, { xM, yM }: Readonly<{ xM: number; yM: number }>) => ({
  xM: Math.min(plan.widthM, Math.max(0, xM)),
  yM: Math.min(plan.depthM, Math.max(0, yM)),
})

function moved(draft: Draft, { key, byXM, byYM, snap = true }: Extract<DraftAction, { kind: 'move' }>): Draft {
  const { plan, places } = draft
  const to = (at: Readonly<{ xM: number; yM: number }>) => {
    const [xM, yM] = [at.xM + byXM, at.yM + byYM]
    return snap ? { xM: snapM(xM), yM: snapM(yM) } : { xM, yM }
  }
  const [kind, id] = key.split(':')
  if (kind === 'bike') {
    if (!places[id]) return draft
    return { ...draft, places: { ...places, [id]: withinRoom(plan, { ...places[id], ...to(places[id]) }) } }
  }
  if (kind === 'instructor') return { ...draft, plan: { ...plan, instructor: within(plan, to(plan.instructor)) } }
  const list = LIST[kind as keyof typeof LIST]
  const things = plan[list].map((at, i) => (i === Number(id) ? within(plan, to(at)) : at))
  return { ...draft, plan: { ...plan, [list]: things } }
}

function withoutThing(draft: Draft, key: ThingKey): Draft {
  const [kind, id] = key.split(':')
  if (kind === 'bike') {
    const { [id]: _out, ...places } = draft.places
    return { ...draft, places }
  }
  const list = LIST[kind as keyof typeof LIST]
  if (!list) return draft
  return { ...draft, plan: { ...draft.plan, [list]: draft.plan[list].filter((_, i) => i !== Number(id)) } }
}

/** The first spot of a raster, from the front, without a bike nearby. */
function freeSpot({ plan, places }: Draft): Readonly<{ xM: number; yM: number }> {
  const placed = Object.values(places)
  for (let yM = 2; yM < plan.depthM - 0.5; yM += 1.5)
    for (let xM = 0.75; xM < plan.widthM - 0.25; xM += 1.25)
      if (placed.every((one) => Math.hypot(one.xM - xM, one.yM - yM) >= 1)) return { xM, yM }
  return { xM: plan.widthM / 2, yM: plan.depthM / 2 }
}
