import { alternatingLowerCalculator, footLiftCalculator, sectionSlideCalculator, syncTiltCalculator } from '@geolabe/core'
import { plural, t } from '../../language/t'
import { fig, hero, kN, present, yes } from './present'
import { Arrow, type At, Box, Cog, Dim, Earth, Line, polar, Round, Scene, turnedBy, Word } from './scene'

const mm = (m: number) => fig(m * 1000, 1)

export const alternatingLower = present(alternatingLowerCalculator, {
  hero: (_i, o) => [
    { label: t`Never further apart than`, value: `${mm(o.step_m)} mm` },
    { label: t`In all`, value: plural(o.count, { one: '# move', other: '# moves' }) },
  ],
  steps: (i, o) => [
    t`s = ${fig(i.span_m)}·tan ${fig(i.limit_deg)}° = ${mm(o.step_m)} mm`,
    ...o.moves
      .slice(0, 16)
      .map((m) =>
        m.side === 'first'
          ? t`${m.move}: first side down to ${mm(m.first_m)} mm`
          : t`${m.move}: second side down to ${mm(m.second_m)} mm`,
      ),
    ...(o.moves.length > 16 ? [t`… and so on, ${o.moves.length} in all`] : []),
  ],
  Drawing: ({ input, output, say }) => {
    const half = input.span_m / 2
    const shown = output.moves.slice(0, 5)
    // Each move beside the one before.
    const wide = input.span_m * 1.5
    const down = (m: number) => -m * 25
    const low = down(Math.min(input.stroke_m, output.step_m * 5))
    return (
      <Scene
        box={[
          [-half, input.span_m * 0.6],
          [wide * (shown.length - 1) + half, low - 1],
        ]}
        label={t`The first ${shown.length} moves, the fall drawn twenty-five times as large`}
      >
        {shown.map((m, i) => {
          const x = i * wide
          const [a, b]: [At, At] = [
            [x - half, down(m.first_m)],
            [x + half, down(m.second_m)],
          ]
          return (
            <g key={m.move}>
              <Line
                at={[
                  [x - half, 0],
                  [x + half, 0],
                ]}
                tone="edge"
                dash
              />
              <Line at={[a, b]} width={1.2} />
              <Round at={m.side === 'first' ? a : b} r={input.span_m * 0.06} fill="near" />
              <Word at={[x, input.span_m * 0.3]} size={2.6}>{`${m.move}`}</Word>
            </g>
          )
        })}
        <Dim a={[-half, low - 0.6]} b={[half, low - 0.6]} off={-2}>
          {say('length', input.span_m)}
        </Dim>
      </Scene>
    )
  },
})

export const sectionSlide = present(sectionSlideCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Draw it within`, 'angle', o.within_deg),
    hero(say, t`Slides by itself from`, 'angle', o.slides_deg, t`not known`),
    { label: t`Pulls down the slope`, value: `${fig(o.slope_N, 0)} N` },
  ],
  steps: (i, o) => [
    o.slides_deg === null
      ? t`friction not known: within ${fig(o.within_deg)}°`
      : t`atan ${fig(i.friction ?? 0)} = ${fig(o.slides_deg)}°, half of it ${fig(o.within_deg)}°`,
    t`${fig(i.section_kg, 0)}·9.81·sin ${fig(o.within_deg)}° = ${fig(o.slope_N, 0)} N`,
  ],
  Drawing: ({ input, output, say }) => {
    const limit = output.slides_deg
    return (
      <Scene
        box={[
          [-1, -2],
          [11, 3],
        ]}
        label={t`The boom within ${say('angle', output.within_deg)} of level`}
      >
        <Earth from={-1} to={11} />
        {[output.within_deg, -output.within_deg].map((d) => (
          <Line key={d} at={[[0, 0.6], turnedBy([10, 0.6], d)]} tone="inside" width={0.8} />
        ))}
        {limit !== null &&
          [limit, -limit].map((d) => <Line key={d} at={[[0, 0.6], turnedBy([10, 0.6], d)]} tone="outside" dash />)}
        <Box at={[0, 0.35]} w={6} h={0.5} fill="sunk" />
        <Box at={[5, 0.42]} w={4.6} h={0.36} fill="sheet" />
        <Word at={[7.4, 1.5]} size={2.4}>
          {say('mass', input.section_kg)}
        </Word>
      </Scene>
    )
  },
})

export const footLift = present(footLiftCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`On the sling`, 'force', o.lift_N),
    hero(say, t`On the head`, 'force', o.head_N),
    hero(say, t`Mast’s tip out at`, 'length', o.mastTip_m),
    hero(say, t`Head draws in by`, 'length', o.draws_m),
  ],
  steps: (i, o) => [
    t`β = asin(${fig(i.hinge.height_m)}/${fig(i.boom_m)}) = ${fig(o.angle_deg)}°`,
    t`${fig(i.mass_kg, 0)}·9.81·(${fig(i.boom_m)} − ${fig(i.cgFromFoot_m)})/(${fig(i.boom_m)} − ${fig(i.slingFromFoot_m)}) = ${kN(o.lift_N)}`,
    t`${fig(i.hinge.x_m)} + ${fig(i.slingFromFoot_m)}·cos β = ${fig(o.mastTip_m)} m`,
  ],
  Drawing: ({ input, output, say }) => {
    const { hinge, boom_m, slingFromFoot_m, cgFromFoot_m } = input
    const foot: At = [hinge.x_m, hinge.height_m]
    const along = (m: number): At => {
      const [dx, dy] = polar(m, -output.angle_deg)
      return [foot[0] + dx, foot[1] + dy]
    }
    const [head, sling] = [along(boom_m), along(slingFromFoot_m)]
    return (
      <Scene
        box={[[-4, 0], head, [0, hinge.height_m * 3]]}
        label={t`The boom on its head, its foot lifted to ${say('length', hinge.height_m)}`}
      >
        <Earth from={-5} to={head[0] + 2} />
        <Box at={[-3.6, 0.3]} w={hinge.x_m + 3.6} h={hinge.height_m * 0.8} fill="sunk" />
        <Line at={[foot, head]} width={1.6} />
        <Line at={[sling, [sling[0], hinge.height_m * 3]]} width={0.5} />
        <Arrow from={sling} to={[sling[0], sling[1] + hinge.height_m]} />
        <Cog at={along(cgFromFoot_m)} tone="outside" />
        <Word at={[sling[0] + boom_m * 0.14, hinge.height_m * 2.4]} size={2.6}>
          {say('force', output.lift_N)}
        </Word>
        <Dim a={[0, 0]} b={[output.mastTip_m, 0]} off={-3}>
          {say('length', output.mastTip_m)}
        </Dim>
      </Scene>
    )
  },
})

export const syncTilt = present(syncTiltCalculator, {
  hero: (_i, o, say) => [
    yes(t`The two`, o.aligned, t`aligned`, t`not aligned`),
    hero(say, t`First hoist`, 'mass', o.first_kg),
    hero(say, t`Second hoist`, 'mass', o.second_kg),
    hero(say, t`The first gains`, 'mass', o.firstGains_kg),
  ],
  steps: (i, o) => [
    t`φ = atan(${mm(i.firstHigher_m)} mm/${fig(i.a_m + i.b_m)} m) = ${fig(o.tilt_deg)}°`,
    t`R₁ = ${fig(i.mass_kg, 0)}·(${fig(i.b_m)} + ${fig(i.h_m)}·tan φ)/${fig(i.a_m + i.b_m)} = ${fig(o.first_kg, 0)} kg`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`First hoist`,
      at: [-i.a_m, 4 + i.firstHigher_m * 10],
      value: say('length', i.firstHigher_m),
      to: ([, y]) => ({ firstHigher_m: (y - 4) / 10 }),
    },
  ],
  Drawing: ({ input, output, say }) => {
    const { a_m, b_m, h_m, firstHigher_m } = input
    // The difference is drawn ten times as large.
    const [one, two]: [At, At] = [
      [-a_m, 4 + firstHigher_m * 10],
      [b_m, 4],
    ]
    const deep = Math.max(1, Math.abs(h_m)) + 0.6
    return (
      <Scene
        box={[
          [-a_m - 1, 7.6],
          [b_m + 1, 4 - deep - 1],
        ]}
        label={t`Two hoists ${say('length', Math.abs(firstHigher_m))} apart in height, drawn ten times as large`}
      >
        <Line at={[one, two]} width={0.8} />
        <Line at={[one, [one[0], 6.4]]} width={0.5} />
        <Line at={[two, [two[0], 6.4]]} width={0.5} />
        <Line at={[one, two, [two[0], two[1] - deep], [one[0], one[1] - deep]]} close fill="sunk" />
        <Cog at={[0, 4 - h_m]} tone="outside" />
        <Word at={[-a_m, 6.9]} size={2.6}>
          {say('mass', output.first_kg)}
        </Word>
        <Word at={[b_m, 6.9]} size={2.6}>
          {say('mass', output.second_kg)}
        </Word>
      </Scene>
    )
  },
})
