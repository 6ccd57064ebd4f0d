import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { groundPressure } from '../ground/ground-pressure'
import type { LegSetting } from '../lift/plan'
import type { Crane } from '../machine/posed'
import { normalDegrees } from '../physics'
import type { Policy } from '../place/place'
import type { LegEnvelope } from '../statics/reaction-envelope'
import type { StandingAt } from './standing'

export interface LegUse {
  id: string
  /** Over the whole path at its worse radius, newtons. */
  max_N: number
  upper_N: number
  min_N: number
  min_at_deg: number
  /** Share of what the ground allows; null: not proven. */
  groundUse: number | null
  pressure_kPa: number | null
}

/** The least that stability allows on the path, with the margin of the machine's table. */
export function stabilityFinding(stands: readonly StandingAt[], total_kg: number, nominal_kg: number, policy: Policy): Finding {
  const fallen = stands.find((s) => !s.standsUnloaded)
  if (fallen) {
    return found({
      check: 'stability',
      verdict: 'outside',
      reason: 'unstable-unloaded',
      at: { radius_m: fallen.radius_m, slew_deg: normalDegrees(fallen.slew_deg) },
    })
  }
  const worst = stands.reduce((a, b) => ((b.rated_kg ?? Infinity) < (a.rated_kg ?? Infinity) ? b : a))
  const at = { radius_m: worst.radius_m, slew_deg: normalDegrees(worst.slew_deg) }
  if (worst.rated_kg === null) return found({ check: 'stability', verdict: 'inside', reason: 'cannot-tip', at })
  const utilisation = shareOf(total_kg, worst.rated_kg)
  return found({
    check: 'stability',
    verdict: byUse(utilisation, policy.near_share),
    reason: 'tipping',
    quantity: 'mass',
    measured: total_kg,
    nominal: nominal_kg,
    limit: worst.rated_kg,
    utilisation,
    at,
    detail: { tipping_kg: worst.tipping_kg ?? 0, edge: worst.edge?.join('–') ?? '' },
  })
}

/** Per leg over all radii of the path: its own strength, and the ground below it. Adds the findings. */
export function legsOf(
  machine: Crane,
  settings: readonly LegSetting[],
  stands: readonly StandingAt[],
  policy: Policy,
  findings: Finding[],
): LegUse[] {
  const key = policy.legLoads === 'upper' ? 'upper_N' : 'max_N'
  return machine.legs.flatMap((leg) => {
    const setting = settings.find((s) => s.id === leg.id) as LegSetting
    let worst: LegEnvelope | null = null
    let least: LegEnvelope | null = null
    let [worst_m, max_N, upper_N] = [0, 0, 0]
    for (const stand of stands) {
      const l = stand.legs.supports.find((x) => x.id === leg.id)
      if (!l) continue
      if (worst === null || l[key] > worst[key]) [worst, worst_m] = [l, stand.radius_m]
      if (least === null || l.min_N < least.min_N) least = l
      max_N = Math.max(max_N, l.max_N)
      upper_N = Math.max(upper_N, l.upper_N)
    }
    if (!worst || !least) return []
    const reaction_N = worst[key]
    const at = {
      radius_m: worst_m,
      slew_deg: normalDegrees(policy.legLoads === 'upper' ? worst.upper_at_deg : worst.max_at_deg),
    }
    findings.push(
      found({
        check: 'leg',
        subject: leg.id,
        verdict: byUse(reaction_N / leg.capacity_N, policy.near_share),
        reason: 'capacity',
        quantity: 'force',
        measured: reaction_N,
        nominal: worst.max_N,
        limit: leg.capacity_N,
        utilisation: reaction_N / leg.capacity_N,
        at,
        detail: { label: leg.label },
      }),
    )
    const g = setting.ground
    const pressed = groundPressure({
      reaction_N,
      pad: leg.pad,
      mat: setting.mat ?? undefined,
      allowable_kPa: g?.allowable_kPa,
      soil: g?.soil,
    })
    const base = { check: 'ground' as const, subject: leg.id, quantity: 'pressure' as const, measured: pressed.formation_kPa, at }
    const detail = {
      label: leg.label,
      ground: g?.label ?? '',
      source: g?.source ?? '',
      ...(pressed.requiredSide_m === null ? {} : { side_m: pressed.requiredSide_m }),
    }
    findings.push(
      pressed.utilisation === null
        ? found({ ...base, verdict: 'not-proven', reason: g ? 'nothing-presumed' : 'unknown', detail })
        : found({
            ...base,
            verdict: byUse(pressed.utilisation, policy.near_share),
            reason: pressed.presumed ? 'presumed' : 'allowable',
            limit: pressed.allowable_kPa,
            utilisation: pressed.utilisation,
            detail,
          }),
    )
    return [
      {
        id: leg.id,
        max_N,
        upper_N,
        min_N: least.min_N,
        min_at_deg: normalDegrees(least.min_at_deg),
        groundUse: pressed.utilisation,
        pressure_kPa: pressed.formation_kPa,
      },
    ]
  })
}
