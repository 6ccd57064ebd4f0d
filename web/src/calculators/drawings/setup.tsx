import {
  backwardStabilityCalculator,
  boomRaisingCalculator,
  bubbleCheckCalculator,
  convexHull,
  levelEffectCalculator,
  levellingCalculator,
  nominal,
  outriggersIn,
  reactionEnvelopeCalculator,
  supportReactionsCalculator,
  tippingLoadCalculator,
} from '@geolabe/core'
import { plural, t } from '../../language/t'
import { feet, spreadOf } from './feet'
import { standing, supportsOf, weighing } from './mine'
import { fig, hero, kN, present, yes } from './present'
import {
  Arrow,
  type At,
  arcOf,
  Box,
  Cog,
  Dim,
  degrees,
  Earth,
  Line,
  plan,
  polar,
  Round,
  Scene,
  turnedBy,
  useUnit,
  Word,
} from './scene'

export const bubbleCheck = present(bubbleCheckCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`True slope`, 'angle', o.true_deg),
    hero(say, t`The loose level is off by`, 'angle', o.error_deg),
    hero(say, t`The machine’s bubble is off by`, 'angle', o.fixedError_deg, t`not compared`),
  ],
  steps: (i, o) => [
    t`(${fig(i.first_deg)} − ${fig(i.turned_deg)}) / 2 = ${fig(o.true_deg)}° true`,
    t`(${fig(i.first_deg)} + ${fig(i.turned_deg)}) / 2 = ${fig(o.error_deg)}° its own error`,
  ],
  grips: (i) => [
    {
      label: t`First reading`,
      at: [-i.first_deg * 0.5, 2.2],
      value: `${fig(i.first_deg)}°`,
      to: ([x]) => ({ first_deg: -x * 2 }),
    },
    {
      label: t`Reading turned`,
      at: [i.turned_deg * 0.5, 0],
      value: `${fig(i.turned_deg)}°`,
      to: ([x]) => ({ turned_deg: x * 2 }),
    },
  ],
  Drawing: ({ input, output }) => {
    const one = (y: number, deg: number, read: number, turned: boolean) => {
      const a = turnedBy([-2, 0], deg)
      const b = turnedBy([2, 0], deg)
      return (
        <g key={y}>
          <Line
            at={[
              [a[0] - 0.6, a[1] + y - 0.35],
              [b[0] + 0.6, b[1] + y - 0.35],
            ]}
            width={0.8}
          />
          <Line
            at={[
              [a[0], a[1] + y],
              [b[0], b[1] + y],
            ]}
            width={5}
            tone="edge"
          />
          <Round at={[(turned ? -1 : 1) * Math.max(-1.6, Math.min(1.6, -read * 0.5)), y]} r={0.16} fill="water" />
          <Word at={[0, y + 0.75]}>{turned ? t`turned: ${fig(read)}°` : t`first: ${fig(read)}°`}</Word>
        </g>
      )
    }
    const tilt = Math.max(-12, Math.min(12, output.true_deg * 4))
    return (
      <Scene
        box={[
          [-3, -1],
          [3, 3.6],
        ]}
        label={t`A level read both ways on a slope of ${fig(output.true_deg)} degrees`}
      >
        {one(2.2, tilt, input.first_deg, false)}
        {one(0, tilt, input.turned_deg, true)}
      </Scene>
    )
  },
})

export const levelling = present(levellingCalculator, {
  mine: (at) => {
    const stood = standing(at)
    const feet = supportsOf(at)
    if (!stood || !feet) return null
    const { pitch_deg, roll_deg } = stood.setup.level
    return {
      ...(pitch_deg === null || roll_deg === null ? {} : { pitch_deg: nominal(pitch_deg), roll_deg: nominal(roll_deg) }),
      supports: feet.flatMap((f) => {
        const stroke = stood.machine.outriggers.find((o) => o.id === f.id)?.stroke
        const stroke_m = outriggersIn(stood.setup.standing).find((o) => o.id === f.id)?.stroke_m
        return stroke && stroke_m !== undefined ? [{ id: f.id, x_m: f.x_m, y_m: f.y_m, stroke_m, ...stroke }] : []
      }),
    }
  },
  hero: (_i, o, say) => [
    yes(t`Within the strokes`, o.feasible, 'yes', 'no'),
    ...o.jacks.map((j) =>
      hero(say, `${j.id}${j.packing_m > 0 ? t`, pack ${say('length', j.packing_m)}` : ''}`, 'length', j.change_m),
    ),
  ],
  steps: (i, o) => [
    t`rise = −(x·sin ${fig(i.pitch_deg)}° + y·sin ${fig(i.roll_deg)}°) + c`,
    plural(o.rounds, { one: 'in this order: {1}; # round', other: 'in this order: {1}; # rounds' }, o.order.join(', ')),
  ],
  asMeasured: spreadOf((i) => i.supports, 'supports'),
  grips: (i, _o, say) => feet(i.supports, say, 'supports'),
  Drawing: ({ input, output, say }) => {
    const pts = input.supports.map(plan)
    const most = Math.max(...output.jacks.map((j) => Math.abs(j.change_m)), 0.01)
    return (
      <Scene box={roomy(pts)} label={t`Plan of the jacks with what each has to do`}>
        <Line at={convexHull(input.supports).map(plan)} close tone="edge" fill="sunk" />
        {output.jacks.map((j) => {
          const s = input.supports.find((x) => x.id === j.id)
          if (!s) return null
          const p = plan(s)
          return (
            <g key={j.id}>
              <Round
                at={p}
                r={0.16 + (0.5 * Math.abs(j.change_m)) / most}
                tone={j.change_m >= 0 ? 'inside' : 'near'}
                fill={j.change_m >= 0 ? 'inside' : 'near'}
              />
              <Word
                at={[p[0], p[1] + (p[1] >= 0 ? 1.35 : -0.75)]}
                bold
              >{`${j.change_m >= 0 ? '↑' : '↓'} ${say('length', Math.abs(j.change_m))}`}</Word>
              <Word at={[p[0] + (p[0] < 0 ? -0.8 : 0.8), p[1] - 0.25]} anchor={p[0] < 0 ? 'end' : 'start'} tone="quiet" size={3}>
                {j.id}
              </Word>
            </g>
          )
        })}
      </Scene>
    )
  },
})

export const levelEffect = present(levelEffectCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Radius changes by`, 'length', o.radiusChange_m),
    { label: t`Sideways pull on the boom`, value: t`${fig(o.sideLoadShare * 100, 1)} % of the load` },
  ],
  steps: (i, o) => [
    t`−${fig(i.height_m)}·(tan ${fig(i.pitch_deg)}°·cos ${fig(i.slew_deg, 0)}° + tan ${fig(i.roll_deg)}°·sin ${fig(i.slew_deg, 0)}°) = ${fig(o.radiusChange_m, 3)} m`,
  ],
  grips: (i, _o, say) => [
    { label: t`Boom tip`, at: [0, Math.max(1, i.height_m)], value: say('length', i.height_m), to: ([, y]) => ({ height_m: y }) },
  ],
  Drawing: ({ input, output, say }) => {
    const h = Math.max(1, input.height_m)
    const out = Math.max(-h * 0.35, Math.min(h * 0.35, output.radiusChange_m * 4))
    return (
      <Scene
        box={[
          [-h * 0.35, 0],
          [h * 0.5, h],
        ]}
        label={t`Boom tip ${say('length', h)} up, moved ${say('length', output.radiusChange_m)}`}
      >
        <Earth from={-h * 0.4} to={h * 0.55} />
        <Line
          at={[
            [0, 0],
            [0, h],
          ]}
          dash
          tone="edge"
        />
        <Line
          at={[
            [0, 0],
            [out, h * 0.98],
          ]}
          width={1.4}
        />
        <Dim a={[0, h]} b={[out, h]} off={3}>
          {say('length', output.radiusChange_m)}
        </Dim>
        <Dim a={[-h * 0.2, 0]} b={[-h * 0.2, h]} off={3}>
          {say('length', h)}
        </Dim>
        <Word at={[h * 0.25, h * 0.08]} tone="quiet" size={3}>{t`drawn four times as much`}</Word>
      </Scene>
    )
  },
})

/** Room beside and beyond a footprint for what is said of each leg. */
function roomy(points: readonly At[]): At[] {
  const xs = points.map((p) => p[0])
  const ys = points.map((p) => p[1])
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  return [
    [x0 - (x1 - x0) * 0.75, y0 - (y1 - y0) * 0.12],
    [x1 + (x1 - x0) * 0.75, y1 + (y1 - y0) * 0.12],
  ]
}

interface Standing {
  supports: { id: string; x_m: number; y_m: number }[]
}
/** The footprint in plan with a load on each leg. */
function Feet({ input, loads, worst }: { input: Standing; loads: Record<string, string>; worst?: string | undefined }) {
  const u = useUnit()
  return (
    <g>
      <Line at={convexHull(input.supports).map(plan)} close fill="sunk" tone="edge" />
      {input.supports.map((s) => {
        const p = plan(s)
        return (
          <g key={s.id}>
            <Box at={[p[0] - u * 2, p[1] - u * 2]} w={u * 4} h={u * 4} fill={s.id === worst ? 'near' : 'sheet'} />
            <Word at={[p[0] + (p[0] < 0 ? -u * 3 : u * 3), p[1]]} anchor={p[0] < 0 ? 'end' : 'start'} size={3.2} bold>
              {loads[s.id] ?? s.id}
            </Word>
          </g>
        )
      })}
    </g>
  )
}

export const supportReactions = present(supportReactionsCalculator, {
  mine: (at) => {
    const own = weighing(at)
    return own && { supports: own.supports, masses: own.masses }
  },
  hero: (_i, o, say) => [
    o.stable
      ? { label: t`Inside the edge by`, value: say('length', o.margin_m), verdict: 'inside' as const }
      : { label: t`As it stands`, value: t`would fall`, verdict: 'outside' as const },
    ...(o.reactions ?? []).map((r) => ({ label: t`${r.id}, at most`, value: say('force', r.upper_N) })),
  ],
  steps: (_i, o) => [
    t`resultant ${kN(o.resultant.force_N)} at x ${fig(o.resultant.x_m)}, y ${fig(o.resultant.y_m)} m`,
    ...(o.reactions ?? []).map((r) => t`${r.id}: ${kN(r.reaction_N)} as springs, ${kN(r.upper_N)} at most`),
  ],
  asMeasured: spreadOf((i) => i.supports, 'supports'),
  grips: (i, _o, say) => feet(i.supports, say, 'supports'),
  Drawing: ({ input, output, say }) => {
    const loads = Object.fromEntries((output.reactions ?? []).map((r) => [r.id, say('force', r.reaction_N)]))
    const worst = [...(output.reactions ?? [])].sort((a, b) => b.reaction_N - a.reaction_N)[0]?.id
    return (
      <Scene
        box={roomy([...input.supports.map(plan), plan(output.resultant)])}
        label={t`Footprint with the load on each leg; the weight stands ${say('length', output.margin_m)} inside`}
      >
        <Feet input={input} loads={loads} worst={worst} />
        <Cog at={plan(output.resultant)} tone={output.stable ? 'ink' : 'outside'} />
      </Scene>
    )
  },
})

export const reactionEnvelope = present(reactionEnvelopeCalculator, {
  mine: (at) => {
    const own = weighing(at)
    return own && { supports: own.supports, masses: own.masses, slewing: own.slewing }
  },
  hero: (_i, o, say) => [
    {
      label: t`Least margin`,
      value: `${say('length', o.margin.least_m)} at ${fig(o.margin.at_deg, 0)}°`,
      verdict: o.margin.least_m > 0 ? 'inside' : 'outside',
    },
    ...o.supports.map((s) => ({ label: t`${s.id}, greatest`, value: `${say('force', s.max_N)} at ${fig(s.max_at_deg, 0)}°` })),
  ],
  steps: (_i, o) => [
    ...o.supports.map(
      (s) =>
        t`${s.id}: ${kN(s.min_N)} at ${fig(s.min_at_deg, 0)}° … ${kN(s.max_N)} at ${fig(s.max_at_deg, 0)}°; at most ${kN(s.upper_N)}`,
    ),
    o.lifted.length > 0
      ? t`comes loose: ${o.lifted.map((l) => `${l.id} ${fig(l.from_deg, 0)}–${fig(l.to_deg, 0)}°`).join(', ')}`
      : t`every leg stays down`,
  ],
  asMeasured: spreadOf((i) => i.supports, 'supports'),
  grips: (i, _o, say) => feet(i.supports, say, 'supports'),
  Drawing: ({ input, output, say }) => {
    const far = Math.max(...input.supports.map((s) => Math.hypot(s.x_m, s.y_m)))
    const loads = Object.fromEntries(output.supports.map((s) => [s.id, `${say('force', s.min_N)}–${say('force', s.max_N)}`]))
    const tip = (deg: number): At => {
      const p = polar(far, deg)
      return [-p[1], p[0]]
    }
    return (
      <Scene
        box={roomy([...input.supports.map(plan), ...arcOf(far, 0, 360)])}
        label={t`Footprint with the least and greatest load on each leg over the arc`}
      >
        <Line at={arcOf(far, input.from_deg, input.to_deg).map((p): At => [-p[1], p[0]])} tone="near" width={1.2} />
        <Feet input={input} loads={loads} />
        <Arrow from={[0, 0]} to={tip(output.margin.at_deg)} tone="near">
          {''}
        </Arrow>
      </Scene>
    )
  },
})

export const tippingLoad = present(tippingLoadCalculator, {
  mine: (at) => {
    const own = weighing(at)
    if (!own) return null
    const { radius_m, ...rest } = own
    return radius_m === null ? rest : { ...rest, radius_m }
  },
  hero: (_i, o, say) => [
    hero(say, t`Tips at`, 'mass', o.tippingLoad_kg, t`cannot tip from here`),
    hero(say, t`Stability alone allows`, 'mass', o.ratedByStability_kg, t`no limit by tipping`),
  ],
  steps: (i, o) => [
    o.edge
      ? t`over ${o.edge.join('–')}: T = W·d_W / d_P = ${fig(o.tippingLoad_kg ?? 0, 0)} kg`
      : t`the hook stays inside the footprint`,
    t`${i.rule} → ${o.ratedByStability_kg === null ? t`no limit` : t`${fig(o.ratedByStability_kg, 0)} kg`}; a table may only be lower`,
  ],
  asMeasured: spreadOf((i) => i.supports, 'supports'),
  grips: (i, _o, say) => {
    const [x, y] = polar(i.radius_m, i.slew_deg)
    return [
      ...feet(i.supports, say, 'supports'),
      {
        label: t`Hook`,
        at: [-y, x],
        value: `${say('length', i.radius_m)} at ${fig(i.slew_deg, 0)}°`,
        to: ([across, along]) => ({ radius_m: Math.hypot(across, along), slew_deg: (degrees(along, -across) + 360) % 360 }),
      },
    ]
  },
  Drawing: ({ input, output, say }) => {
    const p = polar(input.radius_m, input.slew_deg)
    const hook: At = [-p[1], p[0]]
    const edge = output.edge?.map((id) => input.supports.find((s) => s.id === id)).filter((s) => s !== undefined) ?? []
    return (
      <Scene
        box={[...roomy(input.supports.map(plan)), [hook[0] - 2, hook[1] + 1.2], [hook[0] + 2, hook[1]]]}
        label={t`Plan with the hook at ${say('length', input.radius_m)} and the edge it would tip over`}
      >
        <Feet input={input} loads={{}} />
        {edge.length === 2 && <Line at={edge.map(plan)} tone="outside" width={1.8} />}
        <Line at={[[0, 0], hook]} width={1.6} />
        <Round at={hook} r={0.35} fill="near" />
        <Word at={[hook[0], hook[1] + 0.9]} bold>
          {output.tippingLoad_kg === null ? t`cannot tip` : say('mass', output.tippingLoad_kg)}
        </Word>
      </Scene>
    )
  },
})

export const backwardStability = present(backwardStabilityCalculator, {
  mine: (at) => {
    const own = weighing(at)
    return own && { supports: own.supports, masses: own.masses, slewing: own.slewing, crawler: false }
  },
  hero: (_i, o, say) => [
    yes(t`Backwards`, o.ok, 'stands', t`not enough`),
    hero(say, t`Least margin`, 'length', o.least_m),
    { label: t`Way to the edge used`, value: say('share', o.backwardShare) },
  ],
  steps: (i, o) => [
    t`least at slew ${fig(o.at_deg, 0)}°, over ${o.edge.join('–')}: ${fig(o.least_m)} m`,
    i.crawler ? t`crawler: ${fig(o.backwardShare * 100, 0)} % of at most 70 %` : t`${fig(o.backwardShare * 100, 0)} % of the way`,
  ],
  asMeasured: spreadOf((i) => i.supports, 'supports'),
  grips: (i, _o, say) => feet(i.supports, say, 'supports'),
  Drawing: ({ input, output, say }) => {
    const back = polar(2.2, output.at_deg + 180)
    return (
      <Scene
        box={roomy(input.supports.map(plan))}
        label={t`Plan: the weight leans back at slew ${fig(output.at_deg, 0)} degrees`}
      >
        <Feet input={input} loads={{}} />
        <Arrow from={[0, 0]} to={[-back[1], back[0]]} tone={output.ok ? 'inside' : 'outside'} width={1.4} />
        <Word at={[0, 0.5]} bold>
          {say('length', output.least_m)}
        </Word>
      </Scene>
    )
  },
})

export const boomRaising = present(boomRaisingCalculator, {
  hero: (_i, o, say) => [
    yes(
      t`Raised so`,
      o.stands && o.counterweightShort_kg === 0,
      t`it stands`,
      o.counterweightShort_kg > 0 ? t`${say('mass', o.counterweightShort_kg)} short` : t`it falls`,
    ),
    hero(say, t`Greatest pull in the pendants`, 'force', o.greatestPendant_N),
    hero(say, t`Counterweight needed`, 'mass', Math.max(0, o.counterweightNeeded_kg)),
  ],
  steps: (_i, o) =>
    o.angles.map((a) => t`${fig(a.angle_deg, 0)}°: pendants ${kN(a.pendant_N, 0)}, front margin ${fig(a.frontMargin_m)} m`),
  grips: (i, _o, say) => [
    {
      label: t`Counterweight`,
      at: [i.counterweight.x_m, 2],
      value: say('length', i.counterweight.x_m),
      to: ([x]) => ({ counterweight: { x_m: x } }),
    },
    {
      label: t`Mast head`,
      at: [i.pendant.mast_x_m, i.pendant.mast_height_m],
      value: say('length', i.pendant.mast_height_m),
      to: ([x, y]) => ({ pendant: { mast_x_m: x, mast_height_m: y } }),
    },
  ],
  Drawing: ({ input, output, say }) => {
    const foot: At = [input.foot.x_m, input.foot.height_m]
    const mast: At = [input.pendant.mast_x_m, input.pendant.mast_height_m]
    const long = Math.max(...input.boom.map((b) => b.at_m), input.pendant.at_m)
    const first = output.angles[0]
    const angle = Math.max(2, Math.min(...output.angles.map((a) => a.angle_deg)))
    const tip = polar(long, angle, foot)
    const pin = polar(input.pendant.at_m, angle, foot)
    return (
      <Scene
        box={[tip, mast, [input.counterweight.x_m - 1, 0], foot]}
        label={t`Boom leaving the ground, pendants pulling ${say('force', first?.pendant_N ?? 0)}`}
      >
        <Earth from={-input.back_m - 6} to={tip[0] + 2} />
        <Box at={[-input.back_m, 0]} w={input.front_m + input.back_m} h={input.foot.height_m} fill="sheet" />
        <Box at={[input.counterweight.x_m - 1, 1]} w={2} h={2} fill="sunk" />
        <Line at={[foot, tip]} width={1.6} />
        <Line at={[[0, input.foot.height_m], mast]} width={1.2} />
        <Line at={[mast, pin]} tone="near" width={1} />
        <Word at={[(mast[0] + pin[0]) / 2, (mast[1] + pin[1]) / 2 + 2]} bold>
          {say('force', output.greatestPendant_N)}
        </Word>
      </Scene>
    )
  },
})
