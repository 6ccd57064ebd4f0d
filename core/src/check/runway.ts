import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { beamOf, type MarkedPart, markedParts } from '../parts/runway'
import { g_mps2 } from '../physics'
import { marksOf } from '../rating/listed-ratings'
import { farSupport_N, worstBending } from '../statics/runway-beam'
import type { RunwayContext } from './runway-context'

/** A table goes with it. */
export const runwayTable = (ctx: RunwayContext): Finding[] =>
  tableOf(ctx) ? [] : [found({ check: 'table', verdict: 'not-proven', reason: 'no-table', detail: {} })]

const tableOf = ({ plan, machine }: RunwayContext) =>
  plan.tables.find((t) => t.machine === machine.id && t.axes.row.quantity === 'part')

/** The least of four marks, as they are on file and as they were read; hoist and trolley hang on the beam's. */
export function runwayRating(ctx: RunwayContext): Finding[] {
  const { plan, hung, runway, near_share } = ctx
  const table = tableOf(ctx)
  if (!table || !hung) return []
  const filed = marksOf(table)
  const read = plan.setup.fitted.marks
  const allowed = markedParts.map((part): { part: MarkedPart; kg: number | null } => {
    const [own, there] = [read?.[part] ?? null, filed[`${part}_kg`]]
    const kg = own === null || there === null ? null : Math.min(own, there)
    return { part, kg: kg === null ? null : part === 'beam' ? kg - runway.travel.own_kg : kg }
  })
  const unread = allowed.find((a) => a.kg === null)
  if (unread) return [found({ check: 'rating', verdict: 'not-proven', reason: 'no-mark', detail: { part: unread.part } })]
  const least = allowed.reduce((a, b) => ((b.kg ?? 0) < (a.kg ?? 0) ? b : a))
  const utilisation = shareOf(hung.worst_kg, least.kg ?? 0)
  return [
    found({
      check: 'rating',
      verdict: byUse(utilisation, near_share),
      reason: 'marks',
      quantity: 'mass',
      measured: hung.worst_kg,
      nominal: hung.nominal_kg,
      limit: least.kg ?? 0,
      utilisation,
      detail: { part: least.part },
    }),
  ]
}

/** The chain by its falls. */
export function runwayChain({ hung, runway, near_share }: RunwayContext): Finding[] {
  if (!hung) return []
  const limit = runway.falls * runway.perFall_kg
  const utilisation = shareOf(hung.worst_kg, limit)
  const figures = { quantity: 'mass', measured: hung.worst_kg, nominal: hung.nominal_kg, limit, utilisation } as const
  const detail = { falls: runway.falls }
  return [found({ check: 'hoist-rope', verdict: byUse(utilisation, near_share), reason: 'chain', ...figures, detail })]
}

/** Beam, trolley, and the support that an overhanging load pulls up. */
export function runwayStructure(ctx: RunwayContext): Finding[] {
  const { hung, runway, near_share, travel, plan } = ctx
  if (!hung) return []
  const { beam, travel: of } = runway
  const on_kg = hung.worst_kg + of.own_kg
  const load_N = on_kg * g_mps2
  const { moment_Nm, section_m, at_m } = worstBending(beamOf(runway), load_N, travel.from_m, travel.to_m)
  const stress_MPa = moment_Nm / beam.modulus_cm3
  const bent = shareOf(stress_MPa, beam.allowable_MPa)
  const check = 'structure'
  const bending = found({
    check,
    subject: 'beam',
    verdict: byUse(bent, near_share),
    reason: 'bending',
    utilisation: bent,
    detail: { label: of.label, stress_MPa, allowable_MPa: beam.allowable_MPa, section_m, at_m },
  })
  const limit = runway.wheels * runway.perWheel_kg
  const rolled = shareOf(on_kg, limit)
  const trolley = found({
    check,
    subject: 'trolley',
    verdict: byUse(rolled, near_share),
    reason: 'trolley',
    quantity: 'mass',
    measured: on_kg,
    nominal: hung.nominal_kg + of.own_kg,
    limit,
    utilisation: rolled,
    detail: { wheels: runway.wheels },
  })
  const up_N = -farSupport_N(beamOf(runway), load_N, travel.to_m)
  if (up_N <= 0) return [bending, trolley]
  const held = plan.setup.confirmed.some((c) => c.id === of.boltsEvidence)
  const figures = { quantity: 'force', measured: up_N, nominal: up_N } as const
  const pulled = found({
    check,
    subject: 'support',
    verdict: held ? 'inside' : 'not-proven',
    reason: held ? 'held-down' : 'pulled-up',
    ...figures,
    detail: {},
  })
  return [bending, trolley, pulled]
}
