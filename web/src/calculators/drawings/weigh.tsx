import { endsWeightCalculator, supportsWeightCalculator } from '@geolabe/core'
import { t } from '../../language/t'
import { fig, hero, present } from './present'
import { Arrow, type At, Box, Cog, Earth, Line, Round, Scene, Word } from './scene'

export const endsWeight = present(endsWeightCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`The load weighs`, 'mass', o.mass_kg),
    hero(say, t`Centre of gravity, along it`, 'length', o.cg_m),
  ],
  steps: ({ first, second, inReading_kg }, o) => {
    const [one, other] = [first, second].map((p) => ({ held_kg: p.shown_kg - inReading_kg, arm_m: p.pickedAt_m - p.standsAt_m }))
    return [
      t`first end: ${fig(one?.held_kg ?? 0, 0)} kg at ${fig(Math.abs(one?.arm_m ?? 0))} m from its edge`,
      t`other end: ${fig(other?.held_kg ?? 0, 0)} kg at ${fig(Math.abs(other?.arm_m ?? 0))} m from its edge`,
      t`both turn about edges ${fig(Math.abs(second.standsAt_m - first.standsAt_m))} m apart: ${fig(o.mass_kg, 0)} kg`,
    ]
  },
  grips: ({ first, second }, _o, say) => [
    {
      label: t`First pick`,
      at: [first.pickedAt_m, 1.6],
      value: say('length', first.pickedAt_m),
      to: ([x]) => ({ first: { pickedAt_m: x } }),
    },
    {
      label: t`Second pick`,
      at: [second.pickedAt_m, 1.6],
      value: say('length', second.pickedAt_m),
      to: ([x]) => ({ second: { pickedAt_m: x } }),
    },
  ],
  Drawing: ({ input: { first, second }, output: o, say }) => {
    const places = [first.pickedAt_m, first.standsAt_m, second.pickedAt_m, second.standsAt_m]
    const [from, to] = [Math.min(...places), Math.max(...places)]
    const long_m = to - from
    const top = 1
    return (
      <Scene
        box={[
          [from, -0.6],
          [to, 2.6],
        ]}
        label={t`A load of ${say('mass', o.mass_kg)} with its centre of gravity at ${say('length', o.cg_m)}`}
      >
        <Earth from={from - long_m} to={to + long_m} />
        <Box at={[from, 0]} w={long_m} h={top} fill="sheet" />
        {[first, second].map((p, i) => (
          <g key={i === 0 ? 'first' : 'second'}>
            <Line
              at={[
                [p.standsAt_m - 0.12, -0.2],
                [p.standsAt_m, 0],
                [p.standsAt_m + 0.12, -0.2],
              ]}
              close
              fill="ink"
            />
            <Arrow from={[p.pickedAt_m, top]} to={[p.pickedAt_m, 1.6]} width={1.2} />
            <Word at={[p.pickedAt_m, 1.95]} bold>
              {say('mass', p.shown_kg)}
            </Word>
          </g>
        ))}
        <Cog at={[o.cg_m, top / 2]} />
      </Scene>
    )
  },
})

export const supportsWeight = present(supportsWeightCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`The load weighs`, 'mass', o.mass_kg),
    hero(say, t`Centre of gravity, x`, 'length', o.cg.x_m),
    hero(say, t`Centre of gravity, y`, 'length', o.cg.y_m),
  ],
  steps: (_i, o) => [
    ...o.points.map((p) => `${p.id}: ${fig(p.added_kg, 0)} kg`),
    t`together ${fig(o.mass_kg, 0)} kg, at ${fig(o.cg.x_m)} m, ${fig(o.cg.y_m)} m`,
  ],
  grips: ({ points }, _o, say) =>
    points.map((p, at) => ({
      label: t`Point ${p.id}`,
      at: [-p.y_m, p.x_m] as const,
      value: `${say('length', p.x_m)}, ${say('length', p.y_m)}`,
      to: ([x, y]: At) => ({ points: { [at]: { x_m: y, y_m: -x } } }),
    })),
  Drawing: ({ input: { points }, output: o, say }) => {
    const at = (p: { x_m: number; y_m: number }): At => [-p.y_m, p.x_m]
    const wide = Math.max(1, ...points.map((p) => Math.hypot(p.x_m - o.cg.x_m, p.y_m - o.cg.y_m)))
    return (
      <Scene box={[...points.map(at), at(o.cg)]} label={t`Points in plan with what the load adds to each`}>
        <Line at={points.map(at)} close tone="edge" fill="sunk" />
        {points.map((p) => (
          <g key={p.id}>
            <Round at={at(p)} r={wide * 0.03} fill="ink" />
            <Word at={[at(p)[0] + wide * 0.08, at(p)[1]]} anchor="start" bold>
              {say('mass', o.points.find((x) => x.id === p.id)?.added_kg ?? 0)}
            </Word>
          </g>
        ))}
        <Cog at={at(o.cg)} tone="outside" />
      </Scene>
    )
  },
})
