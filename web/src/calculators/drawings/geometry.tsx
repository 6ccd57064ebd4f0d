import {
  articulatedGeometryCalculator,
  boomLimitsCalculator,
  hookTravelCalculator,
  nominal,
  telescopicGeometryCalculator,
  unfoldClearanceCalculator,
} from '@geolabe/core'
import { t } from '../../language/t'
import { boomOf, standing, stepPlanned } from './mine'
import { fig, hero, present } from './present'
import { type At, Box, Dim, degrees, Earth, Line, polar, Round, Scene, Word } from './scene'

export const telescopicGeometry = present(telescopicGeometryCalculator, {
  mine: (at) => {
    const own = boomOf(at)
    const planned = stepPlanned(at)
    const to = planned?.do === 'slew' ? planned.setDown.radius_m : undefined
    if (!own || to === undefined) return null
    const { pivot, headOffset_m } = own.boom
    return { boom_m: own.boom_m, pivot, headOffset_m, radius_m: nominal(to), angle_deg: undefined }
  },
  hero: (_i, o, say) => [
    hero(say, t`Radius`, 'length', o.radius_m),
    hero(say, t`Tip height`, 'length', o.tip_height_m),
    hero(say, t`Boom angle`, 'angle', o.angle_deg),
  ],
  steps: (i, o) => [
    t`R = ${fig(i.boom_m)}·cos ${fig(o.angle_deg, 1)}° + ${fig(i.headOffset_m ?? 0)}·sin ${fig(o.angle_deg, 1)}° − ${fig(i.pivot.back_m)} = ${fig(o.radius_m)} m`,
    t`H = ${fig(i.pivot.height_m)} + ${fig(i.boom_m)}·sin ${fig(o.angle_deg, 1)}° − … = ${fig(o.tip_height_m)} m`,
  ],
  grips: (i, o, say) => [
    {
      label: t`Boom tip`,
      at: [o.radius_m, o.tip_height_m],
      value: say('length', o.radius_m),
      to: ([x, y]) => {
        const [out_m, up_m] = [x + i.pivot.back_m, y - i.pivot.height_m]
        const boom_m = Math.sqrt(Math.max(0, out_m ** 2 + up_m ** 2 - (i.headOffset_m ?? 0) ** 2))
        return i.radius_m === undefined
          ? { boom_m, angle_deg: degrees(out_m, up_m) + degrees(boom_m, i.headOffset_m ?? 0) }
          : { boom_m, radius_m: x }
      },
    },
  ],
  Drawing: ({ input, output, say }) => {
    const foot: At = [-input.pivot.back_m, input.pivot.height_m]
    const tip: At = [output.radius_m, output.tip_height_m]
    return (
      <Scene
        box={[foot, tip, [-3, -output.tip_height_m * 0.09], [0, 0]]}
        label={t`Boom at ${fig(output.angle_deg, 0)} degrees, radius ${say('length', output.radius_m)}`}
      >
        <Earth from={-5} to={output.radius_m + 3} />
        <Box at={[-2.8, 0.5]} w={5.2} h={0.9} fill="sheet" />
        <Line at={[foot, tip]} width={1.8} />
        <Line at={[tip, [tip[0], tip[1] * 0.35]]} width={0.5} />
        <Box at={[tip[0] - 0.6, tip[1] * 0.35 - 1]} w={1.2} h={1} fill="sunk" />
        <Dim a={[0, 0]} b={[output.radius_m, 0]} off={-4}>
          {say('length', output.radius_m)}
        </Dim>
        <Dim a={[output.radius_m, 0]} b={tip} off={-6}>
          {say('length', output.tip_height_m)}
        </Dim>
        <Line
          at={[
            [0, 0],
            [0, tip[1] * 0.5],
          ]}
          dash
          tone="edge"
        />
        <Word at={[foot[0] + 2.4, foot[1] + 0.6]} anchor="start">{`${fig(output.angle_deg, 1)}°`}</Word>
      </Scene>
    )
  },
})

export const articulatedGeometry = present(articulatedGeometryCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Radius`, 'length', o.radius_m),
    hero(say, t`Height`, 'length', o.height_m),
    ...o.poses.map((p) => ({ label: t`Elbow ${p.elbow}`, value: t`${fig(p.angle_deg, 1)}°, fold ${fig(p.fold_deg, 1)}°` })),
  ],
  steps: (i, o) =>
    o.poses.map(
      (p) =>
        t`${fig(i.inner.length_m)}∠${fig(p.angle_deg, 1)}° + ${fig(i.outer.length_m + i.outer.extension_m)}∠${fig(p.angle_deg - p.fold_deg, 1)}° → ${fig(o.radius_m)} m out, ${fig(o.height_m)} m up`,
    ),
  grips: (i, o, say) => {
    if (!('angle_deg' in i.inner) || i.inner.angle_deg === undefined) return []
    const { inner, outer } = i
    const { angle_deg } = i.inner
    const foot: At = [-i.pivot.back_m, i.pivot.height_m]
    const elbow = polar(inner.length_m, angle_deg, foot)
    return [
      {
        label: t`Elbow`,
        at: elbow,
        value: `${fig(angle_deg, 0)}°`,
        to: ([x, y]) => ({ inner: { angle_deg: degrees(x - foot[0], y - foot[1]) } }),
      },
      {
        label: t`Boom tip`,
        at: [o.radius_m, o.height_m],
        value: say('length', o.radius_m),
        to: ([x, y]) => ({
          outer: {
            fold_deg: angle_deg - degrees(x - elbow[0], y - elbow[1]),
            extension_m: Math.hypot(x - elbow[0], y - elbow[1]) - outer.length_m,
          },
        }),
      },
    ]
  },
  Drawing: ({ input, output, say }) => {
    const foot: At = [-input.pivot.back_m, input.pivot.height_m]
    const tip: At = [output.radius_m, output.height_m]
    const elbows = output.poses.map((p) => polar(input.inner.length_m, p.angle_deg, foot))
    return (
      <Scene
        box={[foot, tip, ...elbows, [0, 0]]}
        label={t`Folding boom, tip ${say('length', output.radius_m)} out and ${say('length', output.height_m)} up`}
      >
        <Earth from={-3} to={Math.max(3, output.radius_m + 2)} />
        <Line at={[[-input.pivot.back_m, 0], foot]} width={2.4} />
        {elbows.map((e, i) => (
          <Line
            key={`${e[0]} ${e[1]}`}
            at={[foot, e, tip]}
            width={i === 0 ? 1.6 : 0.8}
            dash={i > 0}
            tone={i === 0 ? 'ink' : 'quiet'}
          />
        ))}
        {elbows.slice(0, 1).map((e) => (
          <Round key={e[0]} at={e} r={0.18} fill="ink" />
        ))}
        <Dim a={[0, 0]} b={[output.radius_m, 0]} off={-4}>
          {say('length', output.radius_m)}
        </Dim>
        <Word at={[tip[0], tip[1] + 0.5]} bold>
          {say('length', output.height_m)}
        </Word>
      </Scene>
    )
  },
})

export const unfoldClearance = present(unfoldClearanceCalculator, {
  hero: (_i, o, say) => [
    { label: t`Inner boom up to, first`, value: o.leastInner_deg === null ? t`nowhere enough` : say('angle', o.leastInner_deg) },
    { label: t`Nearest with the outer folded`, value: o.touches === null ? t`nowhere near` : say('angle', o.touches.fold_deg) },
  ],
  steps: (i, o) => [
    o.leastInner_deg === null
      ? t`at ${fig(i.maxAngle_deg, 1)}° it still touches what is ${fig(i.boxes[o.touches?.box ?? 0]?.top_m ?? 0)} m high`
      : t`clear by ${fig(i.margin_m)} m from ${fig(o.leastInner_deg)}° up to ${fig(i.maxAngle_deg, 1)}°, through every fold from ${fig(i.foldFrom_deg, 0)}° to ${fig(i.foldTo_deg, 0)}°`,
  ],
  grips: (i, _o, say) =>
    i.boxes.map((b, at) => ({
      label: t`Top of what lies there, ${at + 1}`,
      at: [b.x1_m, b.top_m] as const,
      value: say('length', b.top_m),
      to: ([x, y]: At) => ({ boxes: { [at]: { x1_m: x, top_m: y } } }),
    })),
  Drawing: ({ input, output }) => {
    const angle = output.leastInner_deg ?? input.maxAngle_deg
    const foot: At = [-input.pivot.back_m, input.pivot.height_m]
    const elbow = polar(input.inner_m, angle, foot)
    const folds = [input.foldFrom_deg, output.touches?.fold_deg ?? input.foldTo_deg, input.foldTo_deg]
    const low = Math.min(0, ...input.boxes.map((b) => b.top_m - 1))
    const [x0, x1] = [Math.min(...input.boxes.map((b) => b.x0_m)), Math.max(...input.boxes.map((b) => b.x1_m))]
    return (
      <Scene
        box={[
          [Math.max(x0, -8), low],
          [Math.min(x1, 10), elbow[1]],
          elbow,
          ...folds.map((f) => polar(input.outer_m, angle - f, elbow)),
        ]}
        label={t`Inner boom at ${fig(angle, 0)} degrees, outer boom through its folds over what lies under it`}
      >
        {input.boxes.map((b) => (
          <Box
            key={`${b.x0_m} ${b.top_m}`}
            at={[b.x0_m, low - 2]}
            w={b.x1_m - b.x0_m}
            h={b.top_m - low + 2}
            fill="sunk"
            tone="edge"
          />
        ))}
        {folds.map((f, i) => (
          <Line
            key={f}
            at={[elbow, polar(input.outer_m, angle - f, elbow)]}
            width={i === 1 ? 1.6 : 0.8}
            tone={i === 1 ? (output.leastInner_deg === null ? 'outside' : 'near') : 'quiet'}
          />
        ))}
        <Line at={[foot, elbow]} width={2} />
        <Round at={elbow} r={0.12} fill="ink" />
        <Word at={[elbow[0], elbow[1] + 0.5]} bold>
          {output.leastInner_deg === null ? t`not enough` : `${fig(output.leastInner_deg, 1)}°`}
        </Word>
      </Scene>
    )
  },
})

export const hookTravel = present(hookTravelCalculator, {
  mine: (at) => {
    const parts = standing(at)?.setup.fitted.partsOfLine
    return parts === undefined ? null : { parts }
  },
  hero: (i, o, say) => [
    {
      ...hero(say, t`Gap after that`, 'length', i.gap_m + o.gapChange_m),
      // Nobody but the maker says how small a gap may be; none at all is too small.
      ...(i.gap_m + o.gapChange_m <= 0 ? { verdict: 'outside' as const } : {}),
    },
    hero(say, t`Block meets head after`, 'length', o.extensionUntilTwoBlock_m),
    hero(say, t`Line that holds its height`, 'length', o.lineToHoldHeight_m),
  ],
  steps: (i, o) => [
    t`gap changes by −${fig(i.boomExtension_m)}/${i.parts} … = ${fig(o.gapChange_m)} m`,
    t`pay out ${fig(i.boomExtension_m)}·(1 + ${i.parts}·sin ${fig(i.boomAngle_deg, 0)}°) = ${fig(o.lineToHoldHeight_m)} m`,
  ],
  grips: (i, _o, say) => [{ label: t`Block`, at: [0, -i.gap_m], value: say('length', i.gap_m), to: ([, y]) => ({ gap_m: -y }) }],
  Drawing: ({ input, output, say }) => {
    const after = Math.max(0, input.gap_m + output.gapChange_m)
    const g = Math.max(input.gap_m, after, 0.4)
    const one = (x: number, gap: number, word: string) => (
      <g key={x}>
        <Box at={[x - 0.35 * g, 0]} w={0.7 * g} h={0.24 * g} fill="sunk" />
        {Array.from({ length: Math.min(6, input.parts) }, (_, k) => {
          const dx = x + (k - (Math.min(6, input.parts) - 1) / 2) * 0.09 * g
          return (
            <Line
              key={dx}
              at={[
                [dx, 0],
                [dx, -gap],
              ]}
              width={0.4}
            />
          )
        })}
        <Box at={[x - 0.22 * g, -gap - 0.3 * g]} w={0.44 * g} h={0.3 * g} fill="sheet" />
        <Dim a={[x + 0.3 * g, -gap]} b={[x + 0.3 * g, 0]} off={-5}>
          {say('length', gap)}
        </Dim>
        <Word at={[x, 0.42 * g]}>{word}</Word>
      </g>
    )
    return (
      <Scene
        box={[
          [-0.8 * g, 0.5 * g],
          [2.4 * g, -g * 1.35],
        ]}
        label={t`Gap between block and head now ${say('length', input.gap_m)}, after ${say('length', after)}`}
      >
        {one(0, input.gap_m, 'now')}
        {one(1.6 * g, after, t`then`)}
      </Scene>
    )
  },
})

export const boomLimits = present(boomLimitsCalculator, {
  hero: (i, o, say) => [
    ...(i.ceiling_m === undefined
      ? []
      : [
          hero(say, t`Steepest with this boom`, 'angle', o.angle_deg, t`any angle is under it`),
          hero(say, t`Highest`, 'length', o.height_m),
        ]),
    ...(i.wallAway_m === undefined
      ? []
      : [hero(say, t`Furthest out`, 'length', o.reach_m), hero(say, t`Longest boom lying level`, 'length', o.levelBoom_m)]),
  ],
  steps: (i, o) => [
    ...(i.ceiling_m === undefined
      ? []
      : [t`under the ceiling: ${fig(i.ceiling_m)} − ${fig(i.keep_m)} = ${fig(o.height_m ?? 0)} m`]),
    ...(i.wallAway_m === undefined
      ? []
      : [t`short of the wall: ${fig(i.wallAway_m)} − ${fig(i.keep_m)} = ${fig(o.reach_m ?? 0)} m`]),
  ],
  grips: (i, _o, say) => [
    ...(i.ceiling_m === undefined
      ? []
      : [
          {
            label: t`Ceiling`,
            at: [1, i.ceiling_m] as const,
            value: say('length', i.ceiling_m),
            to: ([, y]: At) => ({ ceiling_m: y }),
          },
        ]),
    ...(i.wallAway_m === undefined
      ? []
      : [
          {
            label: t`Wall`,
            at: [i.wallAway_m, 1] as const,
            value: say('length', i.wallAway_m),
            to: ([x]: At) => ({ wallAway_m: x }),
          },
        ]),
  ],
  Drawing: ({ input: i, output: o, say }) => {
    const long_m = i.boom_m + i.headAhead_m
    // Drawn as steep as the ceiling lets it; where there is none, as far out as the wall lets it.
    const slope = ((o.angle_deg ?? (i.ceiling_m === undefined ? 20 : 70)) * Math.PI) / 180
    const foot: At = [-i.pivot.back_m, i.pivot.height_m]
    const along = (out_m: number, up_m: number): At => [
      foot[0] + out_m * Math.cos(slope) - up_m * Math.sin(slope),
      foot[1] + out_m * Math.sin(slope) + up_m * Math.cos(slope),
    ]
    // What of it is left before the wall at that angle is drawn; what would be beyond is dashed.
    const left_m = o.reach_m === null ? long_m : Math.max(0, Math.min(long_m, (o.reach_m - foot[0]) / Math.cos(slope)))
    const [tip, end] = [along(left_m, 0), along(long_m, 0)]
    const right = Math.max(end[0], i.wallAway_m ?? 0)
    const top = Math.max(end[1], i.ceiling_m ?? 0)
    return (
      <Scene
        box={[foot, end, [-3, 0], [right, top]]}
        label={o.angle_deg === null ? t`A boom before a wall` : t`A boom at ${say('angle', o.angle_deg)} under a ceiling`}
      >
        <Earth from={-5} to={right + 3} />
        <Box at={[-2.8, 0.5]} w={5.2} h={0.9} fill="sheet" />
        <Line at={[[foot[0], 1.4], foot]} width={1.8} />
        {left_m < long_m && <Line at={[tip, end]} width={0.8} tone="quiet" dash />}
        <Line at={[foot, tip]} width={1.8} />
        <Line at={[tip, along(left_m, i.headAbove_m)]} width={1} />
        {i.ceiling_m !== undefined && (
          <>
            <Line
              at={[
                [-5, i.ceiling_m],
                [right + 3, i.ceiling_m],
              ]}
              width={1.2}
            />
            <Line
              at={[
                [-5, o.height_m ?? 0],
                [right + 3, o.height_m ?? 0],
              ]}
              tone="quiet"
              dash
            />
          </>
        )}
        {i.wallAway_m !== undefined && (
          <>
            <Line
              at={[
                [i.wallAway_m, 0],
                [i.wallAway_m, top],
              ]}
              width={1.2}
            />
            <Line
              at={[
                [o.reach_m ?? 0, 0],
                [o.reach_m ?? 0, top],
              ]}
              tone="quiet"
              dash
            />
          </>
        )}
      </Scene>
    )
  },
})
