import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { groundPressure } from '../ground/ground-pressure'
import { g_mps2 } from '../physics'
import { high } from '../quantity/measured'
import { ratingAt } from '../rating/read'
import type { RatingConfiguration, RatingTable } from '../rating/table'
import { windForce_N } from '../wind/air'
import type { GantryContext, TowerShare } from './gantry-context'

/** A point that carries less than so much of a load hangs slack, or soon will. */
export const slack_share = 0.05

const tableOf = ({ plan, machine }: GantryContext): RatingTable | undefined =>
  plan.tables.find((t) => t.machine === machine.id && t.axes.row.quantity === 'height_m' && t.axes.column.quantity === 'per')

/** A table goes with it. */
export const gantryTable = (ctx: GantryContext): Finding[] =>
  tableOf(ctx) ? [] : [found({ check: 'table', verdict: 'not-proven', reason: 'no-table', detail: {} })]

/** The rows for this side shift: a load counts as on the middle line only with the whole of its doubt there. */
export function rowsFor(table: RatingTable, sideShift_m: number): RatingConfiguration | undefined {
  return [...table.configurations]
    .sort((a, b) => (a.appliesTo.sideShift_m ?? 0) - (b.appliesTo.sideShift_m ?? 0))
    .find((c) => (c.appliesTo.sideShift_m ?? 0) >= sideShift_m - 1e-9)
}

/** What a tower carries with its half of a header, kg. */
export const onTower_kg = (share: number, hung_kg: number, header_kg: number): number => share * hung_kg + header_kg

/** Each tower's share against what its stage is rated for at this side shift. */
export function gantryRating(ctx: GantryContext): Finding[] {
  const { hung, near_share, shares, sideShift_m, height, header_kg } = ctx
  const table = tableOf(ctx)
  if (!table || !hung) return []
  if (!shares || sideShift_m === null)
    return [
      found({ check: 'rating', verdict: 'not-proven', reason: 'not-measured', detail: { what: 'the load’s centre of gravity' } }),
    ]
  const rows = rowsFor(table, sideShift_m)
  const read = rows && ratingAt(table.axes, rows, height.worst_m, 'tower', 'worse-row').gross_kg
  if (!rows || read === undefined || read === 'not-rated')
    return [found({ check: 'rating', verdict: 'outside', reason: 'not-on-plate', detail: { table: rows?.label ?? table.title } })]
  return shares.map((t) => {
    const measured = onTower_kg(t.most, hung.worst_kg, header_kg)
    const utilisation = shareOf(measured, read)
    return found({
      check: 'rating',
      subject: t.id,
      verdict: byUse(utilisation, near_share),
      reason: 'stage',
      quantity: 'mass',
      measured,
      nominal: onTower_kg(t.nominal, hung.nominal_kg, header_kg),
      limit: read,
      utilisation,
      detail: { label: t.label, table: rows.label, height_m: height.worst_m },
    })
  })
}

/** No tower goes slack: the others would have to take what it leaves. */
export function gantryShare({ step, hung, shares }: GantryContext): Finding[] {
  if (!hung || !shares) return []
  if (!step.laden) return [found({ check: 'share', verdict: 'inside', reason: 'nothing-on', detail: {} })]
  const least = shares.reduce((a, b) => (b.least < a.least ? b : a))
  return [leastShare(least.label, least.least)]
}

/** The least share of all points that carry a load, against what still counts as carrying. */
export function leastShare(label: string, measured: number): Finding {
  const utilisation = shareOf(slack_share, measured)
  return found({
    check: 'share',
    verdict: measured < slack_share ? 'outside' : 'inside',
    reason: 'least',
    quantity: 'share',
    measured,
    nominal: measured,
    limit: slack_share,
    utilisation,
    detail: { label },
  })
}

/** Nothing says by statics that it stands: its papers do, and they have been looked at. */
export const gantryOverturning = ({ plan, gantry }: GantryContext): Finding[] =>
  byPapers(plan.setup.confirmed, gantry.stand.papersEvidence)

export function byPapers(confirmed: readonly { id: string }[], papers: string): Finding[] {
  const held = confirmed.some((c) => c.id === papers)
  const detail = {}
  return [
    found({ check: 'overturning', verdict: held ? 'inside' : 'not-proven', reason: held ? 'by-papers' : 'no-papers', detail }),
  ]
}

/** How far its track falls, both ways. */
export function gantryLevel({ fall, gantry }: GantryContext): Finding[] {
  if (!fall) return [found({ check: 'level', verdict: 'not-proven', reason: 'fall-unread', detail: {} })]
  return fallOf(fall, gantry.stand.level_pct)
}

/** A fall, along and across, against what is allowed of it. */
export function fallOf({ along, cross }: { along: number; cross: number }, most_pct: number): Finding[] {
  const limit = most_pct / 100
  const measured = Math.max(along, cross)
  const utilisation = shareOf(measured, limit)
  const figures = { quantity: 'share', measured, nominal: measured, limit, utilisation } as const
  const verdict = measured > limit + 1e-12 ? 'outside' : 'inside'
  return [found({ check: 'level', verdict, reason: 'fall', ...figures, detail: { way: along >= cross ? 'along' : 'across' } })]
}

/** Headers by their mark, the cylinders by their pressure, and how hard it is pushed sideways. */
export function gantryStructure(ctx: GantryContext): Finding[] {
  const { hung, shares, near_share, plan, gantry, height, header_kg } = ctx
  if (!hung || !shares) return []
  const { stand } = gantry
  const jerked_kg = hung.worst_kg * plan.policy.dynamicFactor
  const check = 'structure'
  const headers = Object.entries(stand.headers).map(([subject, h]) => {
    const carried = shares.filter((s) => s.id === h.left || s.id === h.right)
    // With four links both towers of a header cannot have their most at once; taken so, no header is read too lightly.
    const measured =
      Math.min(
        1,
        carried.reduce((sum, s) => sum + s.most, 0),
      ) * jerked_kg
    const utilisation = shareOf(measured, stand.headerRating_kg)
    const figures = { quantity: 'mass', measured, nominal: measured, limit: stand.headerRating_kg, utilisation } as const
    const verdict = byUse(utilisation, near_share)
    return found({ check, subject, verdict, reason: 'header', ...figures, detail: { label: h.label } })
  })
  return [...headers, ...pressures(ctx, shares, jerked_kg, header_kg, height.worst_m), ...sideways(ctx)]
}

/** The tower whose cylinder is pressed hardest. */
function pressures(
  { gantry, near_share }: GantryContext,
  shares: readonly TowerShare[],
  jerked_kg: number,
  header_kg: number,
  height_m: number,
): Finding[] {
  const stage = gantry.stages.find((s) => height_m <= s.upTo_m + 1e-9)
  if (!stage) return []
  const most = shares.reduce((a, b) => (b.most > a.most ? b : a))
  const pressed = (kg: number) => (kg * g_mps2) / stage.piston_m2 / 1000
  const measured = pressed(onTower_kg(most.most, jerked_kg, header_kg))
  const limit = gantry.working_kPa * gantry.share
  const utilisation = shareOf(measured, limit)
  const figures = { quantity: 'pressure', measured, nominal: measured, limit, utilisation } as const
  const detail = { label: most.label }
  return [
    found({
      check: 'structure',
      subject: 'pressure',
      verdict: byUse(utilisation, near_share),
      reason: 'pressure',
      ...figures,
      detail,
    }),
  ]
}

/** Wind, fall and stopping against the share of its load that it may be pushed sideways with; unread figures are other checks' to say. */
function sideways({ hung, step, plan, gantry, fall, near_share }: GantryContext): Finding[] {
  if (!hung || hung.worst_kg <= 0) return []
  const { wind_mps, roofShut } = plan.conditions
  const { windArea_m2, dragCoefficient } = plan.lift.hung.load
  const blown_N =
    roofShut || wind_mps === null || !step.laden ? 0 : windForce_N(high(wind_mps), dragCoefficient, high(windArea_m2 ?? 0))
  const { stop_mps2, sideLoad_share } = gantry.stand
  const stops = step.do === 'traverse' ? stop_mps2 : 0
  // The lighter the load, the more the wind counts; the rest goes with its weight.
  const worst = [hung.worst_kg, Math.max(hung.lightest_kg, 1)]
    .map((kg) => {
      const measured = blown_N + kg * g_mps2 * ((fall ? Math.max(fall.along, fall.cross) : 0) + stops / g_mps2)
      const limit = sideLoad_share * kg * g_mps2
      return { measured, limit, utilisation: shareOf(measured, limit) }
    })
    .reduce((a, b) => ((b.utilisation ?? Infinity) > (a.utilisation ?? Infinity) ? b : a))
  const figures = { quantity: 'force', nominal: worst.measured, ...worst } as const
  const verdict = byUse(worst.utilisation, near_share)
  return [found({ check: 'structure', subject: 'sideways', verdict, reason: 'sideways', ...figures, detail: {} })]
}

/** What is under each tower. */
export function gantryGround({ hung, shares, plan, gantry, header_kg, near_share }: GantryContext): Finding[] {
  if (!hung || !shares) return []
  const { stand } = gantry
  const jerked_kg = hung.worst_kg * plan.policy.dynamicFactor
  return shares.map(({ id: subject, label, most, setting: { ground, plate } }) => {
    const pressed = groundPressure({
      reaction_N: (onTower_kg(most, jerked_kg, header_kg) + stand.tower_kg) * g_mps2,
      pad: stand.footing,
      mat: plate ?? undefined,
      allowable_kPa: ground?.allowable_kPa,
      soil: ground?.soil,
    })
    const side_m = pressed.requiredSide_m
    const detail = {
      label,
      empty: false,
      ground: ground?.label ?? '',
      source: ground?.source ?? '',
      ...(side_m === null ? {} : { side_m }),
    }
    const base = { check: 'ground', subject, quantity: 'pressure', measured: pressed.formation_kPa } as const
    if (pressed.utilisation === null)
      return found({ ...base, verdict: 'not-proven', reason: ground ? 'nothing-presumed' : 'unknown', detail })
    return found({
      ...base,
      verdict: byUse(pressed.utilisation, near_share),
      reason: pressed.presumed ? 'presumed' : 'allowable',
      limit: pressed.allowable_kPa,
      utilisation: pressed.utilisation,
      detail,
    })
  })
}
