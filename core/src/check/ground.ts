import { byUse, found } from '../finding/finding'
import type { Check } from './check'

/** Pressure under each outrigger's pad or mat against what the ground there takes. */
export const groundCheck: Check<'ground'> = {
  id: 'ground',
  since: 1,
  run: ({ bearings, near_share }) =>
    bearings.map(({ point, setting: { ground }, pressed, at, empty }) => {
      const detail = {
        label: point.label,
        empty,
        ground: ground?.label ?? '',
        source: ground?.source ?? '',
        ...(pressed.requiredSide_m === null ? {} : { side_m: pressed.requiredSide_m }),
      }
      const base = { check: 'ground', subject: point.id, quantity: 'pressure', measured: pressed.formation_kPa, at } as const
      return pressed.utilisation === null
        ? found({ ...base, verdict: 'not-proven', reason: ground ? 'nothing-presumed' : 'unknown', detail })
        : found({
            ...base,
            verdict: byUse(pressed.utilisation, near_share),
            reason: pressed.presumed ? 'presumed' : 'allowable',
            limit: pressed.allowable_kPa,
            utilisation: pressed.utilisation,
            detail,
          })
    }),
  heldBackBy: ['mass', 'boom-limits', 'overturning'],
  impliedBy: [],
  remedies: ['mat', 'radius', 'extension', 'mass', 'split', 'mat-size'],
}
