import type { Shift } from '@geolabe/contract'
import {
  groundAt,
  keepsFootFrom,
  type MachinePosition,
  type OutriggerCrane,
  type OutriggerSetting,
  type Place,
  propContacts,
  type SetupPlan,
  type SupportState,
  stopsOf,
  supportOf,
  type Tol,
} from '@geolabe/core'

export interface OutriggerDraft {
  id: string
  at: { stop: string }
  mat: string | null
  /** Null: whatever the place's plan says lies there. */
  ground: string | null
  stroke_m: number
}

export interface SetupDraft {
  position: MachinePosition
  /** Which of the machine's ways of standing; null: it has only one. */
  state: string | null
  counterweight: string
  /** At the boom's end, where tools are changed; and the one its display was read to show. */
  attachment?: string | null
  shown?: string | null
  partsOfLine: number
  outriggers: OutriggerDraft[]
  pitch_deg: Tol | null
  roll_deg: Tol | null
  strategy: 'raise-only' | 'least-movement'
  /** On its wheels: what they stand on; null: whatever the plan says lies there. */
  underWheels: string | null
  tyresChecked: boolean
  /** Under props: a mat, and what the plan says lies there where nothing else was chosen. */
  props: { mat: string | null; ground: string | null }
  /** What was looked at and confirmed: by whom and when. */
  confirmed: SetupPlan['confirmed']
  circle: { boom_m: number; radius_m: number; load_kg: number | null }
}

/** Keeps every beam from going where something stands; the widest that fits. */
export function widestThatFits(
  machine: OutriggerCrane,
  place: Place,
  position: MachinePosition,
  id: string,
  matId: string | null,
): string {
  const outrigger = machine.outriggers.find((o) => o.id === id)
  const stops = outrigger ? stopsOf(outrigger) : []
  const widest = [...stops].reverse().find((s) => blockedBy(machine, place, position, id, s.id, matId) === undefined)
  return (widest ?? stops[0])?.id ?? ''
}

/** The way of standing that a draft has chosen. */
export const stateOf = (machine: OutriggerCrane, d: Pick<SetupDraft, 'state'>): SupportState | null =>
  machine.supportStates?.find((s) => s.id === d.state) ?? null

export const standsOnWheels = (machine: OutriggerCrane, d: Pick<SetupDraft, 'state'>) => stateOf(machine, d)?.on === 'wheels'

/** What is in the way of an outrigger at a stop, on a mat or its own pad; undefined: nothing. */
export function blockedBy(
  machine: OutriggerCrane,
  place: Place,
  position: MachinePosition,
  id: string,
  stop: string,
  matId: string | null,
) {
  const outrigger = machine.outriggers.find((l) => l.id === id)
  const mat = place.mats.find((m) => m.id === matId)
  return outrigger && keepsFootFrom(outrigger, stop, mat, { place, position })
}

/** A first set-up: at the first stand, every beam as far out as fits, the largest two-way mats. */
export function firstDraft(machine: OutriggerCrane, place: Place, shift: Shift): SetupDraft {
  const last = shift.setups[shift.setups.length - 1]?.plan
  const position: MachinePosition = last?.position ?? (place.positions[0] as MachinePosition)
  const mat = [...place.mats]
    .filter((m) => m.spreads === 'two-way')
    .sort((a, b) => b.length_m * b.width_m - a.length_m * a.width_m)[0]
  const boom_m = machine.boom.lengths_m[Math.floor(machine.boom.lengths_m.length / 2)] as number
  return {
    position: { x_m: position.x_m, y_m: position.y_m, heading_deg: position.heading_deg },
    counterweight:
      last?.fitted.counterweight ?? (machine.upper.counterweights[machine.upper.counterweights.length - 1]?.id as string),
    attachment: last?.fitted.attachment ?? machine.truck?.attachments?.[0]?.id ?? null,
    // What was read on another day says nothing of today.
    shown: null,
    partsOfLine: last?.fitted.partsOfLine ?? machine.hoist.reevings[Math.min(1, machine.hoist.reevings.length - 1)]?.parts ?? 1,
    state:
      last?.standing.state ??
      (machine.supportStates?.find((s) => s.on === 'outriggers') ?? machine.supportStates?.[0])?.id ??
      null,
    underWheels: null,
    tyresChecked: false,
    props: { mat: mat?.id ?? null, ground: null },
    confirmed: [],
    outriggers: machine.outriggers.map((l) => {
      const before = last?.standing.on === 'outriggers' ? last.standing.outriggers.find((x) => x.id === l.id) : undefined
      return {
        id: l.id,
        at: { stop: before?.at.stop ?? widestThatFits(machine, place, position, l.id, mat?.id ?? null) },
        mat: before ? (before.mat?.id ?? null) : (mat?.id ?? null),
        ground: null,
        stroke_m: before?.stroke_m ?? l.stroke.min_m + (l.stroke.max_m - l.stroke.min_m) / 4,
      }
    }),
    pitch_deg: null,
    roll_deg: null,
    strategy: 'raise-only',
    circle: { boom_m, radius_m: Math.round(boom_m * 0.41 * 2) / 2, load_kg: null },
  }
}

/** Is a draft that was kept on the device of today's shape? */
export const isSetupDraft = (d: Partial<SetupDraft>): boolean =>
  typeof d.partsOfLine === 'number' &&
  Array.isArray(d.confirmed) &&
  d.props !== undefined &&
  (d.outriggers ?? []).every((o: Partial<OutriggerDraft>) => o.at?.stop !== undefined)

/** Tool and what its display shows, where there are tools. */
const toolIn = ({ attachment, shown }: SetupDraft) => ({
  ...(attachment ? { attachment } : {}),
  ...(shown ? { selected: { attachment: shown } } : {}),
})

/**
 * The draft as a plan: mats and ground whole, so that it reads and recomputes alone.
 *
 * @param proved what steps that are done in order vouch for
 */
export function planOf(d: SetupDraft, machine: OutriggerCrane, place: Place, proved: readonly string[] = []): SetupPlan {
  const state = stateOf(machine, d)
  const named = (id: string) => place.ground.find((g) => g.id === id) ?? null
  const { counterweight, partsOfLine, position } = d
  const rest = {
    format: 'geolabe.setup/2',
    place: place.id,
    position,
    fitted: { counterweight, partsOfLine, ...toolIn(d) },
  } as const
  const levelVerified = proved.includes('bubble') || d.confirmed.some((c) => c.id === 'bubble')
  const level = { pitch_deg: d.pitch_deg, roll_deg: d.roll_deg, levelVerified }
  if (state?.on === 'wheels') {
    const ground = named(d.underWheels ?? groundAt(place, position, { x_m: 0, y_m: 0 }))
    const tyres = d.tyresChecked ? ('checked' as const) : null
    return { ...rest, standing: { on: 'wheels', state: state.id, ground, tyres }, level, confirmed: d.confirmed }
  }
  const own = { on: 'outriggers', ...(state && { state: state.id }) } as const
  const underProps = (state?.props ? propContacts(state.props) : []).map(
    (at): OutriggerSetting => ({
      id: at.id,
      at: { stop: 'set' },
      mat: place.mats.find((m) => m.id === d.props.mat) ?? null,
      ground: named(d.props.ground ?? groundAt(place, d.position, at)),
      stroke_m: 0,
    }),
  )
  const bare = d.outriggers.map((o) => ({ ...o, mat: null, ground: null }))
  const feet = supportOf(machine, { ...own, outriggers: [...bare, ...underProps] }).contacts
  const settingOf = (l: OutriggerDraft): OutriggerSetting => {
    const foot = feet.find((f) => f.id === l.id)
    const ground = l.ground ?? (foot ? groundAt(place, d.position, foot) : '')
    return {
      id: l.id,
      at: l.at,
      mat: place.mats.find((m) => m.id === l.mat) ?? null,
      ground: named(ground),
      stroke_m: l.stroke_m,
    }
  }
  return {
    ...rest,
    standing: { ...own, outriggers: [...d.outriggers.map(settingOf), ...underProps] },
    level,
    confirmed: d.confirmed,
  }
}
