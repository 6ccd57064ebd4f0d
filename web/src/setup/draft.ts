import type { Shift } from '@geolabe/contract'
import {
  type Crane,
  type Extension,
  groundAt,
  inTheWay,
  type MachinePosition,
  type OutriggerSetting,
  outriggerSupport,
  type Place,
  type SetupPlan,
  type Tol,
} from '@geolabe/core'

export interface OutriggerDraft {
  id: string
  at: { stop: Extension }
  mat: string | null
  /** Null: whatever the place's plan says lies there. */
  ground: string | null
  stroke_m: number
}

export interface SetupDraft {
  position: MachinePosition
  counterweight: string
  partsOfLine: number
  outriggers: OutriggerDraft[]
  pitch_deg: Tol | null
  roll_deg: Tol | null
  strategy: 'raise-only' | 'least-movement'
  steps: string[]
  circle: { boom_m: number; radius_m: number; load_kg: number | null }
}

/** Keeps every beam from going where something stands; the widest that fits. */
export function widestThatFits(
  machine: Crane,
  place: Place,
  position: MachinePosition,
  legId: string,
  matId: string | null,
): Extension {
  return (
    (['fullyExtended', 'intermediate', 'retracted'] as const).find(
      (e) => blockedBy(machine, place, position, legId, e, matId) === undefined,
    ) ?? 'retracted'
  )
}

/** What is in the way of a leg at an extension, on a mat or its own pad; undefined: nothing. */
export function blockedBy(
  machine: Crane,
  place: Place,
  position: MachinePosition,
  legId: string,
  extension: Extension,
  matId: string | null,
) {
  const outrigger = machine.outriggers.find((l) => l.id === legId)
  const on = place.mats.find((m) => m.id === matId) ?? outrigger?.float
  return outrigger && on
    ? inTheWay(place, position, outrigger.positions[extension], Math.max(on.length_m, on.width_m, outrigger.float.length_m) / 2)
    : undefined
}

/** A first set-up: at the first stand, every beam as far out as fits, the largest two-way mats. */
export function firstDraft(machine: Crane, place: Place, shift: Shift): SetupDraft {
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
    partsOfLine: last?.fitted.partsOfLine ?? machine.hoist.reevings[Math.min(1, machine.hoist.reevings.length - 1)]?.parts ?? 1,
    outriggers: machine.outriggers.map((l) => {
      const before = last?.standing.outriggers.find((x) => x.id === l.id)
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
    steps: [],
    circle: { boom_m, radius_m: 8, load_kg: null },
  }
}

/** Is a draft that was kept on the device of today's shape? */
export const isSetupDraft = (d: Partial<SetupDraft>): boolean =>
  typeof d.partsOfLine === 'number' && (d.outriggers ?? []).every((o: Partial<OutriggerDraft>) => o.at?.stop !== undefined)

/** The draft as a plan: mats and ground whole, so that it reads and recomputes alone. */
export function planOf(d: SetupDraft, machine: Crane, place: Place): SetupPlan {
  const feet = outriggerSupport(machine.outriggers).contactsOf(d.outriggers)
  const bubble = machine.procedures.setup.find((s) => s.proves === 'bubble')
  const settingOf = (l: OutriggerDraft): OutriggerSetting => {
    const foot = feet.find((f) => f.id === l.id)
    const ground = l.ground ?? (foot ? groundAt(place, d.position, foot) : '')
    return {
      id: l.id,
      at: l.at,
      mat: place.mats.find((m) => m.id === l.mat) ?? null,
      ground: place.ground.find((g) => g.id === ground) ?? null,
      stroke_m: l.stroke_m,
    }
  }
  const { counterweight, partsOfLine, position } = d
  return {
    format: 'geolabe.setup/2',
    place: place.id,
    position,
    fitted: { counterweight, partsOfLine },
    standing: { on: 'outriggers', outriggers: d.outriggers.map(settingOf) },
    level: { pitch_deg: d.pitch_deg, roll_deg: d.roll_deg, levelVerified: bubble !== undefined && d.steps.includes(bubble.id) },
  }
}
