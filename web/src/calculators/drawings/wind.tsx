import {
  beaufortCalculator,
  swingCalculator,
  windAtHeightCalculator,
  windLimitCalculator,
  windLoadCalculator,
} from '@geolabe/core'
import { t, told } from '../../language/t'
import { fig, hero, kN, present } from './present'
import { Arrow, type At, Box, Dim, Earth, Line, polar, Round, Scene, Word } from './scene'

function Breeze({ at: [x, y], long, n = 4, gap }: { at: At; long: number; n?: number; gap: number }) {
  return (
    <g>
      {Array.from({ length: n }, (_, i) => ({ h: y - i * gap, l: long * (1 - (i % 2) * 0.25) })).map(({ h, l }) => (
        <Arrow key={h} from={[x, h]} to={[x + l, h]} tone="quiet" width={0.5} />
      ))}
    </g>
  )
}

export const beaufort = present(beaufortCalculator, {
  hero: (_i, o, say) => [
    { label: told(o.name), value: t`Force ${o.force}` },
    hero(say, t`Reckon with`, 'speed', o.to_mps, t`over ${fig(o.from_mps, 1)} m/s`),
  ],
  steps: (_i, o) => [t`${fig(o.from_mps, 1)} to ${o.to_mps === null ? '…' : fig(o.to_mps, 1)} m/s; seen: ${told(o.seen)}`],
  Drawing: ({ output }) => {
    const bend = output.force * 3.2
    const top = polar(5, 90 - bend)
    return (
      <Scene
        box={[
          [-4, 0],
          [5, 6.4],
        ]}
        label={`${told(output.name)}: ${told(output.seen)}`}
      >
        <Earth from={-6} to={7} />
        <Line at={[[0, 0], polar(2.4, 90 - bend * 0.35), top]} width={1.4} />
        <Round at={[top[0] + output.force * 0.06, top[1]]} r={1.1} fill="inside" tone="inside" />
        <Breeze at={[-4, 5.4]} long={0.4 + output.force * 0.22} gap={1.1} />
        <Word at={[3.6, 5.6]} bold size={6}>
          {output.force}
        </Word>
      </Scene>
    )
  },
})

export const windAtHeight = present(windAtHeightCalculator, {
  hero: (_i, o, say) => [hero(say, t`Gust up there`, 'speed', o.gust_mps)],
  steps: (i, o) => [
    i.read === 'gust-at-tip'
      ? t`read at the tip: not raised again`
      : `((${fig(Math.max(10, i.height_m))}/10)^0.14 + 0.4) × ${fig(i.speed_mps, 1)} = ${fig(o.gust_mps, 1)} m/s`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`Height`,
      at: [Math.max(10, i.height_m) * 0.5, i.height_m],
      value: say('length', i.height_m),
      to: ([, y]) => ({ height_m: y }),
    },
  ],
  Drawing: ({ input, output, say }) => {
    const h = Math.max(10, input.height_m)
    return (
      <Scene
        box={[
          [-h * 0.7, 0],
          [h * 0.8, h * 1.15],
        ]}
        label={t`Wind growing with height to ${say('speed', output.gust_mps)}`}
      >
        <Earth from={-h} to={h} />
        {[0.1, 0.25, 0.4, 0.55, 0.7, 0.85, 1].map((s) => (
          <Arrow
            key={s}
            from={[-h * 0.6, h * s]}
            to={[-h * 0.6 + h * 0.6 * ((Math.max(10, s * h) / 10) ** 0.14 + 0.4) * 0.55, h * s]}
            tone="quiet"
            width={0.5}
          />
        ))}
        <Line
          at={[
            [h * 0.15, 0],
            [h * 0.5, h],
          ]}
          width={1.4}
        />
        <Word at={[h * 0.5, h * 1.08]} bold>
          {say('speed', output.gust_mps)}
        </Word>
        <Dim a={[h * 0.68, 0]} b={[h * 0.68, h]} off={-3}>
          {say('length', input.height_m)}
        </Dim>
      </Scene>
    )
  },
})

function Hanging({ angle, sail, words }: { angle: number; sail: number; words: string }) {
  const l = 6
  const p = polar(l, -90 + angle, [0, 0])
  const s = Math.max(0.6, Math.min(2.4, Math.sqrt(sail) * 0.7))
  return (
    <g>
      <Line
        at={[
          [-1.4, 0.4],
          [0, 0],
        ]}
        width={1.6}
      />
      <Line
        at={[
          [0, 0],
          [0, -l],
        ]}
        dash
        tone="edge"
      />
      <Line at={[[0, 0], p]} width={0.7} />
      <Box at={[p[0] - s / 2, p[1] - s]} w={s} h={s} fill="sunk" />
      <Breeze at={[p[0] - s / 2 - 3, p[1] - s * 0.2]} long={2.2} gap={s * 0.3} n={3} />
      <Word at={[p[0], p[1] - s - 0.5]} bold>
        {words}
      </Word>
    </g>
  )
}
export const windLimit = present(windLimitCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Up to`, 'speed', o.limit_mps),
    { label: t`Set by`, value: o.reducedByLoad ? t`this load’s sail` : t`the table’s own limit` },
  ],
  steps: (i, o) => [
    `${fig(i.chartLimit_mps, 1)}·√(${fig(i.referenceArea_m2_per_t)}·${fig(i.mass_kg / 1000)} t / (${fig(i.dragCoefficient)}·${fig(i.sailArea_m2)} m²)) ${o.reducedByLoad ? '=' : '>'} ${fig(o.limit_mps, 1)} m/s`,
  ],
  Drawing: ({ input, output, say }) => (
    <Scene
      box={[
        [-4.5, 0.8],
        [4, -9],
      ]}
      label={t`A load that may be lifted up to ${say('speed', output.limit_mps)}`}
    >
      <Hanging angle={output.reducedByLoad ? 12 : 5} sail={input.sailArea_m2} words={`≤ ${say('speed', output.limit_mps)}`} />
    </Scene>
  ),
})
export const windLoad = present(windLoadCalculator, {
  hero: (_i, o, say) => [
    o.force_N < 10_000 ? { label: t`Force`, value: `${fig(o.force_N, 0)} N` } : hero(say, t`Force`, 'force', o.force_N),
    hero(say, t`Hangs out by`, 'length', o.drift_m),
    ...(o.moment_Nm === null ? [] : [{ label: t`Moment`, value: `${fig(o.moment_Nm / 1000, 1)} kNm` }]),
  ],
  steps: (i, o) => [
    `½·1.25·${fig(i.speed_mps ?? 0, 1)}²·c·${fig(i.sailArea_m2)} = ${kN(o.force_N, 2)}`,
    t`${fig(i.ropeLength_m ?? 0)} m × force / weight = ${fig(o.drift_m)} m`,
  ],
  Drawing: ({ input, output, say }) => (
    <Scene
      box={[
        [-4.5, 0.8],
        [4.5, -9],
      ]}
      label={t`A load hanging out ${say('length', output.drift_m)} in the wind`}
    >
      <Hanging angle={Math.min(50, output.angle_deg)} sail={input.sailArea_m2} words={say('length', output.drift_m)} />
    </Scene>
  ),
})

export const swing = present(swingCalculator, {
  hero: (_i, o, say) => [
    { label: t`There and back`, value: `${fig(o.period_s, 1)} s` },
    { label: t`Left swinging`, value: say('angle', o.residualAmplitude_deg) },
    hero(say, t`Further out while slewing`, 'length', o.extraRadius_m),
  ],
  steps: (i, o) => [
    t`T = 2π√(${fig(i.ropeLength_m)}/g) … = ${fig(o.period_s)} s; a start or stop that takes ${fig(o.quietRamp_s, 1)} s leaves no swing`,
    t`at most ${fig(o.peakAngle_deg, 1)}° while it lasts, ${fig(o.residualAmplitude_deg, 1)}° after`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`Load on its rope`,
      at: [0, -i.ropeLength_m],
      value: say('length', i.ropeLength_m),
      to: ([, y]) => ({ ropeLength_m: -y }),
    },
  ],
  Drawing: ({ input, output, say }) => {
    const l = input.ropeLength_m
    const wide = Math.max(2, Math.min(60, output.residualAmplitude_deg))
    const ends = [-wide, wide].map((d) => polar(l, -90 + d))
    return (
      <Scene
        box={[
          [-l * 0.5, l * 0.12],
          [l * 0.5, -l * 1.15],
        ]}
        label={t`A load on ${say('length', l)} of rope swinging ${fig(output.residualAmplitude_deg, 1)} degrees`}
      >
        <Line
          at={[
            [-l * 0.25, l * 0.1],
            [0, 0],
          ]}
          width={1.6}
        />
        <Line
          at={[
            [0, 0],
            [0, -l],
          ]}
          dash
          tone="edge"
        />
        {ends.map((e) => (
          <g key={e[0]}>
            <Line at={[[0, 0], e]} width={0.6} />
            <Round at={e} r={l * 0.05} fill="sunk" />
          </g>
        ))}
        <Line at={Array.from({ length: 21 }, (_, i) => polar(l, -90 - wide + (i * 2 * wide) / 20))} tone="near" />
        <Word at={[0, -l * 1.1]} bold>{`${fig(output.period_s, 1)} s`}</Word>
      </Scene>
    )
  },
})
