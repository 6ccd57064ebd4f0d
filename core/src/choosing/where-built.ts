import type { SetupPlan, Step } from '../lift/plan'
import type { GantryMachine, RunwayMachine } from '../machine/provable'
import { towersOf } from '../parts/gantry'
import type { Place } from '../place/place'
import { groundAt, toMachine } from '../place/standing'
import { type Asked, type Assumed, type Offered, stoodAt, type Unable, type Way } from './way'

type Marked = Place['positions'][number]

/** How far beside its track or beam a load may still be said to lie under it, metres. */
const beside_m = 0.3

/** What is made there for it, and where along that the load is taken and put down; null: it lies beside it. */
function alongIt(at: Marked, { wanted }: Asked): { from_m: number; to_m: number } | null {
  const [from, to] = [toMachine(at, wanted.from), toMachine(at, wanted.to)]
  if (Math.abs(from.y_m) > beside_m || Math.abs(to.y_m) > beside_m) return null
  return { from_m: from.x_m, to_m: to.x_m }
}

function builtWay(
  machine: Offered['machine'],
  asked: Asked,
  at: Marked,
  rest: Pick<SetupPlan, 'standing' | 'fitted'> & { steps: Step[]; effort: Way['effort']; assumed: Assumed[] },
): Way {
  const { standing, fitted, steps, effort, assumed } = rest
  const { setup, confirmed } = stoodAt(machine, asked, at, { standing, fitted })
  return {
    stand: at,
    setup,
    lift: { format: 'geolabe.lift/2', hung: asked.wanted.hung, steps },
    effort,
    assumed: [...confirmed, ...assumed],
  }
}

/** Between towers on the track that the place has for them: straight up, along it, and down. */
export function betweenTowers({ machine }: Offered & { machine: GantryMachine }, asked: Asked): Way[] | Unable {
  const { gantry } = machine
  const { place, wanted } = asked
  const at = place.positions.find((p) => p.madeFor === 'towers')
  if (!at) return { reason: 'no-stand' }
  const along = alongIt(at, asked)
  if (!along) return { reason: 'off-its-track' }
  const by_m = along.to_m - along.from_m
  if (Math.abs(by_m) > gantry.stand.track_m) return { reason: 'straight-up', track_m: gantry.stand.track_m }
  const low_m = Math.min(...gantry.stages.map((s) => s.upTo_m)) * 0.75
  const up_m = low_m + Math.max(wanted.over_m, wanted.from.height_m, wanted.to.height_m)
  const most_m = Math.max(...gantry.stages.map((s) => s.upTo_m))
  if (up_m > most_m) return { reason: 'too-high', most_m: most_m - low_m }
  const mats = [...place.mats]
    .filter((m) => m.spreads === 'two-way')
    .sort((a, b) => b.length_m * b.width_m - a.length_m * a.width_m)
  const ground = place.ground.find((g) => g.id === groundAt(place, at, { x_m: 0, y_m: 0 })) ?? null
  const hoist = (from_m: number, to_m: number): Step => ({ do: 'hoist', laden: true, from_m, to_m, which: 'all' })
  const travel: Step[] = by_m === 0 ? [] : [{ do: 'traverse', laden: true, of: 'frame', from_m: 0, to_m: by_m }]
  const { front } = gantry.stand.headers
  const wide_m = (wanted.hung.load.size?.width_m ?? 2) + 2
  return [2, 3, 4, 5, 6].map((apart_m) =>
    builtWay(machine, asked, at, {
      standing: {
        on: 'towers',
        towers: towersOf(gantry).map((id, i) => ({
          id,
          x_m: (id === front.left || id === front.right ? apart_m : -apart_m) / 2,
          y_m: (i % 2 === 0 ? wide_m : -wide_m) / 2,
          ground,
          plate: mats[0] ?? null,
        })),
        fall: { along_pct: 0, cross_pct: 0 },
        linkage: 'one-point-per-header',
      },
      fitted: {},
      steps: [hoist(low_m + wanted.from.height_m, up_m), ...travel, hoist(up_m, low_m + wanted.to.height_m)],
      effort: [{ work: 'towers', count: gantry.towers }],
      assumed: [{ what: 'towers-at', apart_m, wide_m }, { what: 'level' }],
    }),
  )
}

/** Under its own beam: up, along, and down. */
export function underBeam({ machine, tables }: Offered & { machine: RunwayMachine }, asked: Asked): Way[] | Unable {
  const { travel } = machine.runway
  const at = asked.place.positions.find((p) => p.madeFor === 'runway' && p.id === travel.beam)
  const along = at && alongIt(at, asked)
  if (!at || !along) return { reason: 'under-its-beam' }
  const marks = marksOf(tables, machine.id)
  return [
    builtWay(machine, asked, at, {
      standing: { on: 'runway', beam: travel.beam },
      fitted: { ...(marks && { marks }) },
      steps: [{ do: 'traverse', laden: true, ...along }],
      effort: [],
      assumed: [{ what: 'marks' }],
    }),
  ]
}

/** Marks as its table has them, taken as read again. */
function marksOf(tables: Offered['tables'], id: string): NonNullable<SetupPlan['fitted']['marks']> | null {
  const rows = tables.find((t) => t.machine === id)?.configurations[0]?.rows ?? []
  const mark = (at: string) => rows.find((r) => r.at === at)?.ratings_kg[0] ?? null
  return rows.length === 0 ? null : { hoist: mark('hoist'), trolley: mark('trolley'), beam: mark('beam'), hook: mark('hook') }
}
