import type { loadMass as computeLoad, Shape } from '@geolabe/core'
import {
  boomPropsCalculator,
  hydraulicForceCalculator,
  loadMassCalculator,
  loadSharingCalculator,
  recoveryCalculator,
  slingTensionCalculator,
  solidOf,
  winchPullCalculator,
} from '@geolabe/core'
import { plural, t } from '../../language/t'
import { spreadTo, wide } from './feet'
import { fig, hero, kN, present, use } from './present'
import { Arrow, type At, Box, Cog, Dim, degrees, Earth, Line, polar, Round, Scene, type Tone, Word } from './scene'

type Part = { shape: string; name?: string; count?: number; at?: { x_m: number; y_m: number; z_m: number } } & Shape
export type LoadAnswer = ReturnType<typeof computeLoad>

/** Two views of a load to one scale: from the side, and from above. */
export function LoadDrawing({ input, output }: { input: { parts: Part[] }; output: LoadAnswer }) {
  const placed = input.parts.map((p) => ({ p, s: solidOf(p), at: p.at ?? { x_m: 0, y_m: 0, z_m: 0 } }))
  const low = Math.min(...placed.map(({ s, at }) => at.z_m - s.box.z / 2))
  const depth =
    Math.max(...placed.map(({ s, at }) => at.y_m + s.box.y / 2)) - Math.min(...placed.map(({ s, at }) => at.y_m - s.box.y / 2))
  const drop = low - depth * 0.5 - output.extents.z_m * 0.35 - 0.2
  const midY =
    (Math.max(...placed.map(({ s, at }) => at.y_m + s.box.y / 2)) +
      Math.min(...placed.map(({ s, at }) => at.y_m - s.box.y / 2))) /
    2
  const box: At[] = placed.flatMap(({ s, at }): At[] => [
    [at.x_m - s.box.x / 2, at.z_m + s.box.z / 2],
    [at.x_m + s.box.x / 2, drop - depth / 2],
  ])
  const shape = (p: Part, w: number, h: number, x: number, y: number, side: boolean) => {
    const round = (p.shape === 'cylinder' || p.shape === 'tube') && 'axis' in p && (side ? p.axis === 'y' : p.axis === 'z')
    if (round || p.shape === 'sphere') return <Round at={[x, y]} r={w / 2} />
    if (p.shape === 'cone' && side)
      return (
        <Line
          at={[
            [x - w / 2, y - h / 2],
            [x + w / 2, y - h / 2],
            [x, y + h / 2],
          ]}
          close
          fill="sheet"
        />
      )
    return <Box at={[x - w / 2, y - h / 2]} w={w} h={h} />
  }
  return (
    <Scene box={box} label={t`The load from the side, and below it from above, with its centre of gravity`}>
      {placed.map(({ p, s, at }, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: parts have no names of their own
        <g key={i}>
          {shape(p, s.box.x, s.box.z, at.x_m, at.z_m, true)}
          {shape(p, s.box.x, s.box.y, at.x_m, drop - midY + at.y_m, false)}
        </g>
      ))}
      <Cog at={[output.cg.x_m, output.cg.z_m]} tone="outside" />
      <Cog at={[output.cg.x_m, drop - midY + output.cg.y_m]} tone="outside" />
    </Scene>
  )
}

export const loadMass = present(loadMassCalculator, {
  keepsInputs: true,
  hero: (_i, o, say) => [
    hero(say, t`Mass`, 'mass', o.mass_kg),
    hero(say, t`Sail, seen along`, 'area', o.sailArea_m2.x),
    hero(say, t`Sail, seen across`, 'area', o.sailArea_m2.y),
  ],
  steps: (_i, o) => [
    ...o.parts.map((p) => t`${p.name}: ${fig(p.mass_kg, 0)} kg`),
    t`centre of gravity at x ${fig(o.cg.x_m)}, y ${fig(o.cg.y_m)}, z ${fig(o.cg.z_m)} m`,
    ...o.warnings,
  ],
  grips: (i, _o, say) =>
    i.parts.flatMap((p, at) =>
      p.at
        ? [
            {
              label: p.name ?? t`Part ${at + 1}`,
              at: [p.at.x_m, p.at.z_m] as const,
              value: `${say('length', p.at.x_m)}, ${say('length', p.at.z_m)} up`,
              to: ([x, y]: At) => ({ parts: { [at]: { at: { x_m: x, z_m: y } } } }),
            },
          ]
        : [],
    ),
  Drawing: LoadDrawing,
})

/** How far a lift point stands from below the hook, metres. */
const aside = (cg: { x_m: number; y_m: number }, l: { x_m: number; y_m: number }) => Math.hypot(l.x_m - cg.x_m, l.y_m - cg.y_m)

export const slingTension = present(slingTensionCalculator, {
  hero: (_i, o, say) => {
    const worst = [...o.legs].sort((a, b) => b.tension_N - a.tension_N)[0]
    return [
      {
        label: t`Greatest in a leg`,
        value: say('force', worst?.tension_N ?? 0),
      },
      hero(say, t`Equivalent hanging mass`, 'mass', (worst?.tension_N ?? 0) / 9.80665),
      use(say, t`Used of its limit`, worst?.utilisation ?? null),
      { label: t`Steepest off plumb`, value: say('angle', Math.max(...o.legs.map((l) => l.angle_deg))) },
    ]
  },
  steps: (_i, o) => [
    ...o.legs.map((l) => t`leg ${l.id}: ${fig(l.angle_deg, 1)}° off plumb, ${kN(l.tension_N)}`),
    o.limit_kg === null ? t`no limit given` : t`limit of a leg ${fig(o.limit_kg, 0)} kg, by its ${o.governs}`,
  ],
  asMeasured: {
    figures: {
      slingLength_m: (i) => Math.max(...i.lifts.map((l) => Math.hypot(aside(i.cg, l), i.hook.z_m - l.z_m))),
      spreadAlong_m: (i) => wide(i.lifts.map((l) => l.x_m)),
      spreadAcross_m: (i) => wide(i.lifts.map((l) => l.y_m)),
    },
    // All as long as the one that goes furthest out: the hook hangs no higher than that lets it.
    to: ({ slingLength_m = 0, spreadAlong_m = 0, spreadAcross_m = 0 }, i) => {
      const along = spreadTo(
        i.lifts.map((l) => l.x_m),
        spreadAlong_m,
      )
      const across = spreadTo(
        i.lifts.map((l) => l.y_m),
        spreadAcross_m,
      )
      const lifts = i.lifts.map((l, k) => ({ x_m: along[k] ?? l.x_m, y_m: across[k] ?? l.y_m, z_m: l.z_m }))
      const heights = lifts.map((l) => l.z_m + Math.sqrt(Math.max(0, slingLength_m ** 2 - aside(i.cg, l) ** 2)))
      return { hook: { z_m: Math.min(...heights) }, lifts }
    },
  },
  grips: (i, _o, say) => [
    { label: t`Hook`, at: [i.cg.x_m, i.hook.z_m], value: say('length', i.hook.z_m), to: ([, y]) => ({ hook: { z_m: y } }) },
    ...i.lifts
      .map((l, at) => ({
        label: t`Lift point ${l.id}`,
        at: [l.x_m, l.z_m] as const,
        value: `${say('length', l.x_m)}, ${say('length', l.z_m)} up`,
        to: ([x, y]: At) => ({ lifts: { [at]: { x_m: x, z_m: y } } }),
      }))
      // Of two in one line of sight the nearer is dragged.
      .filter((g, at, all) => all.findIndex((o) => `${o.at}` === `${g.at}`) === at),
  ],
  Drawing: ({ input, output, say }) => {
    const hook: At = [input.cg.x_m, input.hook.z_m]
    const xs = input.lifts.map((l) => l.x_m)
    const [x0, x1] = [Math.min(...xs) - 0.2, Math.max(...xs) + 0.2]
    const low = Math.min(...input.lifts.map((l) => l.z_m))
    const seen = input.lifts
      .map((l, i) => ({ l, leg: output.legs[i] }))
      .filter(({ l }, i, all) => all.findIndex((o) => Math.abs(o.l.x_m - l.x_m) < 1e-6 && o.l.z_m === l.z_m) === i)
    return (
      <Scene
        box={[hook, [x0, low - (x1 - x0) * 0.3], [x1, input.hook.z_m + 0.3]]}
        label={t`Slings from the side, hook ${say('length', output.headroom_m)} above the lift points`}
      >
        <Box at={[x0, low - (x1 - x0) * 0.28]} w={x1 - x0} h={(x1 - x0) * 0.28} fill="sunk" />
        <Line at={[hook, [hook[0], low - (x1 - x0) * 0.1]]} dash tone="edge" />
        {seen.map(({ l, leg }) => (
          <g key={l.id}>
            <Line
              at={[hook, [l.x_m, l.z_m]]}
              width={1.1}
              tone={leg?.utilisation != null && leg.utilisation > 1 ? 'outside' : 'ink'}
            />
            <Word
              at={[hook[0] * 0.45 + l.x_m * 0.55, hook[1] * 0.45 + l.z_m * 0.55]}
              anchor={l.x_m > hook[0] ? 'start' : 'end'}
              bold
            >
              {` ${say('force', leg?.tension_N ?? 0)} `}
            </Word>
            <Word
              at={[hook[0] * 0.75 + l.x_m * 0.25, hook[1] * 0.75 + l.z_m * 0.25]}
              anchor={l.x_m > hook[0] ? 'start' : 'end'}
              size={3}
              tone="quiet"
            >
              {` ${fig(leg?.angle_deg ?? 0, 0)}° `}
            </Word>
          </g>
        ))}
        <Round at={hook} r={(x1 - x0) * 0.02} fill="ink" />
        <Cog at={[input.cg.x_m, low - (x1 - x0) * 0.12]} tone="outside" />
      </Scene>
    )
  },
})

export const loadSharing = present(loadSharingCalculator, {
  hero: (_i, o, say) => [
    ...o.hooks.map((h) => ({
      label: `${h.id}${h.upper_kg > h.load_kg * 1.001 ? t`, at most ${say('mass', h.upper_kg)}` : ''}`,
      value: say('mass', h.load_kg),
    })),
    ...(o.greatestUse === null ? [] : [use(say, t`Fullest`, o.greatestUse)]),
  ],
  steps: (i, o) => [
    i.two
      ? t`R₁ = W(b + h·tan φ)/(a + b) = ${fig(i.mass_kg, 0)}·(${fig(i.two.b_m)} + ${fig(i.two.h_m)}·tan ${fig(i.two.tilt_deg, 1)}°)/${fig(i.two.a_m + i.two.b_m)} = ${fig(o.hooks[0]?.load_kg ?? 0, 0)} kg`
      : t`as legs on springs, and at most whatever settles`,
    ...o.hooks
      .filter((h) => h.pressure_kPa !== null)
      .map(
        (h) =>
          t`${h.id}: should read ${fig(h.pressure_kPa ?? 0, 0)} kPa${h.pressureRatio === null ? '' : t`, reads ${fig(h.pressureRatio * 100, 0)} % of it`}`,
      ),
  ],
  asMeasured: {
    figures: {
      hookSpacing_m: ({ two }) => (two ? two.a_m + two.b_m : Number.NaN),
      cgFromFirstHook_m: ({ two }) => two?.a_m ?? Number.NaN,
    },
    to: ({ hookSpacing_m = 0, cgFromFirstHook_m = 0 }) => ({
      two: { a_m: cgFromFirstHook_m, b_m: hookSpacing_m - cgFromFirstHook_m },
    }),
  },
  grips: ({ two, several }, _o, say) =>
    several
      ? several.points.map((p, at) => ({
          label: t`Lift point ${p.id}`,
          at: [-p.y_m, p.x_m] as const,
          value: `${say('length', p.x_m)}, ${say('length', p.y_m)}`,
          to: ([x, y]: At) => ({ several: { points: { [at]: { x_m: y, y_m: -x } } } }),
        }))
      : two
        ? [
            { label: t`First hook`, at: [-two.a_m, 0], value: say('length', two.a_m), to: ([x]) => ({ two: { a_m: -x } }) },
            { label: t`Second hook`, at: [two.b_m, 0], value: say('length', two.b_m), to: ([x]) => ({ two: { b_m: x } }) },
            {
              label: t`Centre of gravity`,
              at: [0, -two.h_m],
              value: say('length', two.h_m),
              to: ([, y]) => ({ two: { h_m: -y } }),
            },
          ]
        : [],
  Drawing: ({ input, output, say }) => {
    if (input.several) {
      const pts = input.several.points
      return (
        <Scene box={[...pts.map((p): At => [-p.y_m, p.x_m]), [0, 0]]} label={t`Lift points in plan with what each carries`}>
          <Line at={pts.map((p): At => [-p.y_m, p.x_m])} close tone="edge" fill="sunk" />
          {pts.map((p) => (
            <g key={p.id}>
              <Round at={[-p.y_m, p.x_m]} r={0.15} fill="ink" />
              <Word at={[-p.y_m, p.x_m + 0.35]} bold>
                {say('mass', output.hooks.find((h) => h.id === p.id)?.load_kg ?? 0)}
              </Word>
            </g>
          ))}
          <Cog at={[-input.several.cg.y_m, input.several.cg.x_m]} tone="outside" />
        </Scene>
      )
    }
    const two = input.two ?? { a_m: 1, b_m: 1, h_m: 0, tilt_deg: 0 }
    const span = two.a_m + two.b_m
    const rise = Math.tan((two.tilt_deg * Math.PI) / 180)
    const [left, right]: At[] = [
      [-two.a_m, two.a_m * rise],
      [two.b_m, -two.b_m * rise],
    ]
    return (
      <Scene
        box={[
          [-two.a_m, span * 0.45],
          [two.b_m, -span * 0.35 - two.h_m],
        ]}
        label={t`A load on two hooks with what each carries`}
      >
        <Line at={[left as At, right as At]} width={3} tone="edge" />
        <Box at={[-span * 0.2, -two.h_m - span * 0.12]} w={span * 0.4} h={two.h_m + span * 0.12} />
        <Cog at={[0, -two.h_m]} tone="outside" />
        <Arrow from={[-two.a_m, span * 0.12]} to={[-two.a_m, span * 0.34]} width={1.2} />
        <Arrow from={[two.b_m, span * 0.12]} to={[two.b_m, span * 0.34]} width={1.2} />
        <Word at={[-two.a_m, span * 0.42]} bold>{`1: ${say('mass', output.hooks[0]?.load_kg ?? 0)}`}</Word>
        <Word at={[two.b_m, span * 0.42]} bold>{`2: ${say('mass', output.hooks[1]?.load_kg ?? 0)}`}</Word>
        <Dim a={[-two.a_m, -two.h_m - span * 0.14]} b={[0, -two.h_m - span * 0.14]} off={-4}>
          {say('length', two.a_m)}
        </Dim>
        <Dim a={[0, -two.h_m - span * 0.14]} b={[two.b_m, -two.h_m - span * 0.14]} off={-4}>
          {say('length', two.b_m)}
        </Dim>
      </Scene>
    )
  },
})

export const hydraulicForce = present(hydraulicForceCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Carries`, 'force', o.net_N),
    hero(say, t`While raising`, 'force', o.raising_N),
    hero(say, t`While creeping in`, 'force', o.lowering_N),
    ...(o.atRelief ? [{ label: t`Relief valve`, value: t`reached: not a rating`, verdict: 'outside' as const }] : []),
  ],
  steps: (i, o) => [
    t`${fig(i.base_kPa, 0)} kPa × ${fig(o.base_m2 * 1e4, 1)} cm² − ${fig(i.rodSide_kPa, 0)} kPa × ${fig(o.ring_m2 * 1e4, 1)} cm² = ${kN(o.net_N)}`,
  ],
  grips: (i, _o, say) => [
    { label: t`Bore`, at: [i.bore_m * 0.6, i.bore_m / 2], value: say('length', i.bore_m), to: ([, y]) => ({ bore_m: y * 2 }) },
    { label: t`Rod`, at: [i.bore_m * 2.4, i.rod_m / 2], value: say('length', i.rod_m), to: ([, y]) => ({ rod_m: y * 2 }) },
  ],
  Drawing: ({ input, output, say }) => {
    const b = input.bore_m
    return (
      <Scene
        box={[
          [-b * 0.2, -b],
          [b * 4.4, b * 1.2],
        ]}
        label={t`A cylinder carrying ${say('force', output.net_N)}`}
      >
        <Box at={[0, -b / 2]} w={b * 2.6} h={b} fill="sheet" />
        <Box at={[0, -b / 2]} w={b * 1.2} h={b} fill="water" />
        <Box at={[b * 1.2, -b / 2]} w={b * 0.16} h={b} fill="ink" />
        <Box at={[b * 1.36, -input.rod_m / 2]} w={b * 1.9} h={input.rod_m} fill="sunk" />
        <Arrow from={[b * 4.2, 0]} to={[b * 3.32, 0]} width={1.4} />
        <Word at={[b * 3.75, b * 0.34]} bold>
          {say('force', output.net_N)}
        </Word>
        <Word at={[b * 0.6, 0]}>{`${fig(input.base_kPa / 1000, 1)} MPa`}</Word>
        <Word at={[b * 2, b * 0.72]} tone="quiet">{`${fig(input.rodSide_kPa / 1000, 1)} MPa`}</Word>
      </Scene>
    )
  },
})

export const winchPull = present(winchPullCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Pull needed`, 'force', o.pull_N),
    hero(say, t`On the line`, 'force', o.line_N),
    ...(o.utilisation === null ? [] : [use(say, t`Used of the winch`, o.utilisation)]),
  ],
  steps: (i, o) => [
    t`${fig(i.mass_kg, 0)}·g·(sin ${fig(i.slope_deg, 1)}° + ${fig(i.resistance_share)}·cos ${fig(i.slope_deg, 1)}°) = ${kN(o.pull_N)}`,
    plural(
      i.parts,
      { one: '# part of line → {1}; on the last anchor {2}', other: '# parts of line → {1}; on the last anchor {2}' },
      kN(o.line_N),
      kN(o.anchor_N),
    ),
  ],
  grips: (i) => {
    const drawn = Math.max(-30, Math.min(50, i.slope_deg))
    return [
      { label: t`Slope`, at: polar(10, drawn), value: `${fig(i.slope_deg, 0)}°`, to: ([x, y]) => ({ slope_deg: degrees(x, y) }) },
    ]
  },
  Drawing: ({ input, output, say }) => {
    const a = (Math.max(-30, Math.min(50, input.slope_deg)) * Math.PI) / 180
    const up = (d: number, h = 0): At => [d * Math.cos(a) - h * Math.sin(a), d * Math.sin(a) + h * Math.cos(a)]
    return (
      <Scene
        box={[[0, 0], up(10, 2.5), [10, 0]]}
        label={t`A load on a slope of ${fig(input.slope_deg, 0)} degrees, pulled with ${say('force', output.pull_N)}`}
      >
        <Line at={[[0, 0], up(10), [10 * Math.cos(a), 0]]} close fill="sunk" />
        <Line at={[up(1.6, 0.25), up(3.8, 0.25), up(3.8, 1.5), up(1.6, 1.5)]} close fill="sheet" />
        <Round at={up(2.1, 0.25)} r={0.25} fill="ink" />
        <Round at={up(3.3, 0.25)} r={0.25} fill="ink" />
        {Array.from({ length: Math.min(4, input.parts) }, (_, k) => (
          <Line key={up(3.8, k)[1]} at={[up(3.8, 0.7 + k * 0.25), up(9.4, 0.7 + k * 0.25)]} width={0.7} />
        ))}
        <Word at={up(6.4, 2.1)} bold>
          {say('force', output.line_N)}
        </Word>
      </Scene>
    )
  },
})

export const boomProps = present(boomPropsCalculator, {
  hero: (_i, o, say) => [
    use(say, t`Each prop, ${say('force', o.each_N)}`, o.propUse),
    o.foot_N < 0
      ? use(say, t`Its foot pulls up, ${say('force', -o.foot_N)}`, o.footUse)
      : { label: t`Its foot`, value: t`bears ${say('force', o.foot_N)}`, verdict: 'inside' as const },
    hero(say, t`At most on the hook`, 'mass', o.most_kg),
  ],
  steps: (i, o) => [
    t`props: (${fig(i.hook_kg, 0)}·${fig(i.dynamicFactor, 2)}·${fig(i.radius_m + i.back_m)} + ${fig(
      i.boom.reduce((s, m) => s + m.mass_kg * (m.radius_m + i.back_m), 0),
      0,
    )})·g / ${fig(i.props_m + i.back_m)} / 2 = ${kN(o.each_N)} each`,
    t`foot: all that is there less both props = ${kN(o.foot_N)}`,
  ],
  grips: (i, _o, say) => [
    { label: t`Load`, at: [i.radius_m, 2], value: say('length', i.radius_m), to: ([x]) => ({ radius_m: x }) },
    { label: t`Props`, at: [i.props_m, 0.6], value: say('length', i.props_m), to: ([x]) => ({ props_m: x }) },
  ],
  Drawing: ({ input, output, say }) => {
    const [foot, head]: [At, At] = [
      [-input.back_m, 2.4],
      [input.radius_m, 4.6],
    ]
    const at = (x: number): At => [x, foot[1] + ((x - foot[0]) / (head[0] - foot[0])) * (head[1] - foot[1])]
    return (
      <Scene
        box={[
          [-input.back_m - 1.6, -0.9],
          [Math.max(input.radius_m, input.props_m) + 1.6, 5.2],
        ]}
        label={t`A boom on props ${say('length', input.props_m)} out, ${say('mass', input.hook_kg)} at ${say('length', input.radius_m)}`}
      >
        <Earth from={-input.back_m - 3} to={Math.max(input.radius_m, input.props_m) + 3} />
        <Box at={[-input.back_m - 1.2, 0.9]} w={2.4} h={1.2} fill="sheet" />
        <Line at={[foot, head]} width={2.4} />
        <Line at={[[input.props_m, 0], at(input.props_m)]} width={1.8} />
        <Line at={[head, [input.radius_m, 2.1]]} width={0.7} />
        <Box at={[input.radius_m - 0.5, 1.2]} w={1} h={0.9} fill="sheet" />
        <Arrow from={[input.props_m, -0.75]} to={[input.props_m, -0.05]} tone={byUsed(output.propUse)} width={1.4}>
          {say('force', output.each_N)}
        </Arrow>
        <Arrow
          from={output.foot_N < 0 ? [foot[0], 2.5] : [foot[0], 4]}
          to={output.foot_N < 0 ? [foot[0], 4] : [foot[0], 2.5]}
          tone={output.foot_N < 0 ? byUsed(output.footUse) : 'inside'}
          width={1.4}
        />
        <Word at={[foot[0], 4.35]} bold tone={output.foot_N < 0 ? byUsed(output.footUse) : 'inside'}>
          {say('force', Math.abs(output.foot_N))}
        </Word>
      </Scene>
    )
  },
})

/** As the share of a limit that is used has it. */
const byUsed = (used: number | null): Tone => (used === null || used > 1 ? 'outside' : used >= 0.9 ? 'near' : 'inside')

export const recovery = present(recoveryCalculator, {
  hero: (_i, o, say) => [
    {
      label: t`Left on the front axle`,
      value: `${say('force', o.frontLeft_N)}, ${say('share', o.frontLeft_share)}`,
      verdict: o.ok ? 'inside' : 'outside',
    },
    o.rear_N === undefined
      ? { label: t`Rear axle`, value: t`not given`, verdict: 'not-proven' as const }
      : use(say, t`Rear axle, ${say('force', o.rear_N)}`, o.rearUse ?? null),
    hero(say, t`At most behind`, 'force', Math.max(0, o.greatestPull_N)),
  ],
  steps: (i, o) => [
    `${kN(i.frontAxle_N)} − ${kN(i.pull_N)} × ${fig(i.overhang_m)} / ${fig(i.wheelbase_m)} = ${kN(i.frontAxle_N - (i.pull_N * i.overhang_m) / i.wheelbase_m)}`,
    t`so ${fig(o.frontLeft_share * 100, 0)} % stays`,
  ],
  grips: (i, _o, say) => [
    { label: t`Towed end`, at: [-i.overhang_m, 1.6], value: say('length', i.overhang_m), to: ([x]) => ({ overhang_m: -x }) },
    { label: t`Front axle`, at: [i.wheelbase_m, 0.5], value: say('length', i.wheelbase_m), to: ([x]) => ({ wheelbase_m: x }) },
  ],
  Drawing: ({ input, output, say }) => {
    const w = input.wheelbase_m
    return (
      <Scene
        box={[
          [-input.overhang_m - 1, 0],
          [w + 1.6, 3],
        ]}
        label={t`A truck with ${say('force', input.pull_N)} behind its rear axle`}
      >
        <Earth from={-input.overhang_m - 2} to={w + 2.4} />
        <Box at={[-0.9, 0.7]} w={w + 2} h={0.5} fill="sheet" />
        <Box at={[w - 0.6, 1.2]} w={1.6} h={1.4} fill="sheet" />
        <Round at={[0, 0.5]} r={0.5} fill="ink" />
        <Round at={[w, 0.5]} r={0.5} fill="ink" />
        <Line
          at={[
            [0, 1.2],
            [-input.overhang_m, 1.6],
          ]}
          width={1.4}
        />
        <Arrow from={[-input.overhang_m, 2.7]} to={[-input.overhang_m, 1.65]} tone="near" width={1.4}>
          {say('force', input.pull_N)}
        </Arrow>
        <Word at={[w, -0.4]} bold tone={output.ok ? 'inside' : 'outside'}>
          {say('force', output.frontLeft_N)}
        </Word>
        <Dim a={[-input.overhang_m, 0]} b={[0, 0]} off={-9}>
          {say('length', input.overhang_m)}
        </Dim>
      </Scene>
    )
  },
})
