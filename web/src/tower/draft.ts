import type { Shift } from '@geolabe/contract'
import type { Crane, Place, SetupPlan } from '@geolabe/core'

export interface TowerSetupDraft {
  partsOfLine: number | null
  /** The papers of its base by their number, and until when they hold. */
  certificate: string
  until: string
  confirmed: SetupPlan['confirmed']
}

export function firstTowerSetup(machine: Crane, shift: Shift): TowerSetupDraft {
  const last = shift.setups.at(-1)?.plan
  const stood = last?.standing.on === 'base' ? last.standing : null
  const [only] = machine.hoist.reevings
  return {
    partsOfLine: last?.fitted.partsOfLine ?? (machine.hoist.reevings.length === 1 ? (only?.parts ?? null) : null),
    certificate: stood?.certificate?.id ?? '',
    until: stood?.certificate?.until ?? '',
    confirmed: [],
  }
}

/** Is a draft that was kept on the device of today's shape? */
export const isTowerSetup = (d: Partial<TowerSetupDraft>): boolean =>
  typeof d.certificate === 'string' && typeof d.until === 'string' && Array.isArray(d.confirmed)

/** On the base that its place has marked; without a mark where anything stands first. */
export function towerPlanOf(d: TowerSetupDraft, machine: Crane, place: Place): SetupPlan {
  const at = place.positions.find((p) => p.madeFor === 'base') ?? place.positions[0]
  const { x_m, y_m, heading_deg } = at ?? { x_m: 0, y_m: 0, heading_deg: 0 }
  const { certificate: id, until } = d
  const [counterweight] = machine.upper.counterweights
  return {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m, y_m, heading_deg },
    standing: { on: 'base', certificate: id.trim() && until ? { id: id.trim(), until } : null },
    fitted: {
      ...(counterweight ? { counterweight: counterweight.id } : {}),
      ...(d.partsOfLine === null ? {} : { partsOfLine: d.partsOfLine }),
    },
    level: { pitch_deg: null, roll_deg: null, levelVerified: false },
    confirmed: d.confirmed,
  }
}
