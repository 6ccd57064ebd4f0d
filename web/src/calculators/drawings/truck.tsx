import { axleLoadsCalculator, stabilityTriangleCalculator, tailSwingCalculator, truckRatingCalculator } from '@geolabe/core'
import { t } from '../../language/t'
import { fig, hero, kN, present, use, yes } from './present'
import { Arrow, type At, arcOf, Box, Cog, Dim, Earth, Line, Round, Scene, Word } from './scene'

/** A forklift from the side: wheels, mast, forks at a height, a load with its centre. */
function Truck({
  face,
  base,
  height,
  centre,
  load,
}: {
  face: number
  base: number
  height: number
  centre: number
  load: string
}) {
  const w = Math.max(0.3, centre * 2)
  return (
    <g>
      <Box at={[-base - 0.3, 0.25]} w={base + 0.35} h={0.75} fill="sheet" />
      <Line
        at={[
          [-base * 0.85, 1],
          [-base * 0.7, 2],
          [-0.25, 2],
          [-0.05, 1],
        ]}
        width={0.8}
      />
      <Round at={[0, 0.32]} r={0.32} fill="ink" />
      <Round at={[-base, 0.26]} r={0.26} fill="ink" />
      <Line
        at={[
          [face - 0.08, 0.1],
          [face - 0.08, Math.max(2.1, height + 1)],
        ]}
        width={1.6}
      />
      <Line
        at={[
          [face, height],
          [face + w + 0.1, height],
        ]}
        width={1.2}
      />
      <Box at={[face, height + 0.04]} w={w} h={w * 0.8} fill="sunk" />
      <Cog at={[face + centre, height + w * 0.4]} tone="outside" />
      <Word at={[face + w / 2, height + w * 0.8 + 0.25]} bold>
        {load}
      </Word>
    </g>
  )
}

export const truckRating = present(truckRatingCalculator, {
  hero: (_i, o, say) => [
    hero(say, o.estimate ? t`Estimated` : t`Plate allows`, 'mass', o.allowed_kg),
    o.proven
      ? use(say, t`Used`, o.utilisation)
      : { label: t`Battery`, value: t`outside the plate`, verdict: 'not-proven' as const },
  ],
  steps: (i, o) => {
    const x = i.faceToAxle_m
    const r = o.row
    const how =
      o.estimate && r && x !== undefined
        ? t`${fig(r.capacity_kg, 0)}·(${fig(x)} + ${fig(r.loadCentre_m)})/(${fig(x)} + ${fig(i.load.centre_m)}) = ${fig(Number(o.allowed_kg), 0)} kg, an estimate`
        : r
          ? t`row of ${fig(r.loadCentre_m)} m load centre, ${fig(r.liftHeight_m)} m high: ${fig(r.capacity_kg, 0)} kg`
          : t`no row of the plate is as hard as this load`
    return [how, ...o.warnings]
  },
  asMeasured: {
    figures: { loadDepth_m: (i) => i.load.centre_m * 2, forkHeight_m: (i) => i.load.height_m },
    to: ({ loadDepth_m = 0, forkHeight_m = 0 }) => ({ load: { centre_m: loadDepth_m / 2, height_m: forkHeight_m } }),
  },
  grips: (i, _o, say) => {
    const face = i.faceToAxle_m ?? 0.45
    return [
      {
        label: t`Load centre`,
        at: [face + i.load.centre_m, Math.max(0.1, i.load.height_m)],
        value: `${say('length', i.load.centre_m)}, ${say('length', i.load.height_m)} up`,
        to: ([x, y]) => ({ load: { centre_m: x - face, height_m: y } }),
      },
    ]
  },
  Drawing: ({ input, output, say }) => {
    const face = input.faceToAxle_m ?? 0.45
    const h = Math.max(0.1, input.load.height_m)
    return (
      <Scene
        box={[
          [-2, 0],
          [face + input.load.centre_m * 2 + 0.4, h + 1.4],
        ]}
        label={t`Forklift with a load of ${say('mass', input.load.mass_kg)}, centre ${say('length', input.load.centre_m)} from the face`}
      >
        <Earth from={-3.5} to={face + 3} />
        <Truck face={face} base={1.6} height={h} centre={input.load.centre_m} load={say('mass', input.load.mass_kg)} />
        <Dim a={[face, h]} b={[face + input.load.centre_m, h]} off={-6}>
          {say('length', input.load.centre_m)}
        </Dim>
        <Word
          at={[face - 0.35, h + 0.5]}
          anchor="end"
          bold
          tone={output.utilisation !== null && output.utilisation > 1 ? 'outside' : 'ink'}
        >
          {output.allowed_kg === 'not-rated' ? t`not rated` : t`at most ${say('mass', output.allowed_kg)}`}
        </Word>
      </Scene>
    )
  },
})

export const axleLoads = present(axleLoadsCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Worst wheel, moving`, 'force', o.worstWheel_N),
    yes(t`Rear axle`, !o.tips, say('force', o.rear_N), t`tips forward`),
    hero(say, t`Plate it needs`, 'length', o.plateSide_m, t`floor not given`),
  ],
  steps: (i, o) => [
    t`rear: (${fig(i.truck.mass_kg, 0)}·${fig(i.truck.cgBehindFront_m)} − ${fig(i.load.mass_kg, 0)}·${fig(i.load.aheadOfFront_m)})·g / ${fig(i.truck.wheelbase_m)} = ${kN(o.rear_N)}`,
    t`front ${kN(o.front_N)}, ${fig(o.frontShare * 100, 0)} % of all; wheel × ${fig(o.dynamicFactor, 1)} = ${kN(o.worstWheel_N)}`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`Rear axle`,
      at: [-i.truck.wheelbase_m, 0.26],
      value: say('length', i.truck.wheelbase_m),
      to: ([x]) => ({ truck: { wheelbase_m: -x } }),
    },
    {
      label: t`Load`,
      at: [i.load.aheadOfFront_m, 0.6],
      value: say('length', i.load.aheadOfFront_m),
      to: ([x]) => ({ load: { aheadOfFront_m: x } }),
    },
  ],
  Drawing: ({ input, output, say }) => (
    <Scene
      box={[
        [-input.truck.wheelbase_m - 0.5, -1.1],
        [input.load.aheadOfFront_m + 0.9, 2.2],
      ]}
      label={t`Axle loads: front ${say('force', output.front_N)}, rear ${say('force', output.rear_N)}`}
    >
      <Earth from={-input.truck.wheelbase_m - 2} to={input.load.aheadOfFront_m + 2} />
      <Truck
        face={Math.max(0.3, input.load.aheadOfFront_m - 0.5)}
        base={input.truck.wheelbase_m}
        height={0.15}
        centre={0.5}
        load={say('mass', input.load.mass_kg)}
      />
      <Arrow from={[0, -0.75]} to={[0, -0.05]} tone={output.tips ? 'outside' : 'near'} width={1.4}>
        {say('force', output.front_N)}
      </Arrow>
      <Arrow
        from={[-input.truck.wheelbase_m, -0.75]}
        to={[-input.truck.wheelbase_m, -0.05]}
        tone={output.tips ? 'outside' : 'inside'}
        width={1.4}
      >
        {say('force', output.rear_N)}
      </Arrow>
    </Scene>
  ),
})

export const stabilityTriangle = present(stabilityTriangleCalculator, {
  hero: (_i, o, say) => [
    yes(
      t`Stands`,
      o.stable,
      t`${say('length', Math.min(...Object.values(o.margins).filter((m) => m !== undefined)))} inside`,
      'tips',
    ),
    hero(say, t`Overturns in this turn at`, 'speed', o.tipSpeed_mps, t`straight on`),
    hero(say, t`Drive at most`, 'speed', o.permittedSpeed_mps, t`straight on`),
  ],
  steps: (_i, o) => [
    t`weight at x ${fig(o.x_m)}, y ${fig(o.y_m)} m`,
    t`to the front ${fig(o.margins.front_m)} m, left ${fig(o.margins.left_m)} m, right ${fig(o.margins.right_m)} m${o.margins.rear_m === undefined ? '' : t`, rear ${fig(o.margins.rear_m)} m`}`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`Front wheel`,
      at: [i.frontHalfTrack_m, 0],
      value: say('length', i.frontHalfTrack_m),
      to: ([x]) => ({ frontHalfTrack_m: x }),
    },
    { label: t`Rear axle`, at: [0, -i.wheelbase_m], value: say('length', i.wheelbase_m), to: ([, y]) => ({ wheelbase_m: -y }) },
    ...i.masses.map((m, at) => ({
      label: t`Mass ${at + 1}, ${say('mass', m.mass_kg)}`,
      at: [-m.y_m, m.x_m] as const,
      value: t`${say('length', m.x_m)} ahead`,
      to: ([x, y]: At) => ({ masses: { [at]: { x_m: y, y_m: -x } } }),
    })),
  ],
  Drawing: ({ input, output }) => {
    const rear = input.rear === 'pivot' ? 0 : input.rear.halfTrack_m
    const pts: At[] = [
      [-input.frontHalfTrack_m, 0],
      [input.frontHalfTrack_m, 0],
      [rear, -input.wheelbase_m],
      [-rear, -input.wheelbase_m],
    ]
    const all = input.masses.reduce((s, m) => s + m.mass_kg, 0)
    const still: At = [
      -input.masses.reduce((s, m) => s + m.mass_kg * m.y_m, 0) / all,
      input.masses.reduce((s, m) => s + m.mass_kg * m.x_m, 0) / all,
    ]
    const now: At = [-output.y_m, output.x_m]
    return (
      <Scene
        box={[...pts, now, still, [0, 0.6]]}
        label={t`The triangle between the wheels, where the weight stands still and where it stands now`}
      >
        <Line at={pts} close fill="sunk" width={0.9} />
        {pts.map((p) => (
          <Box key={`${p}`} at={[p[0] - 0.06, p[1] - 0.15]} w={0.12} h={0.3} fill="ink" />
        ))}
        <Line at={[still, now]} dash tone="quiet" />
        <Cog at={still} tone="quiet" />
        <Cog at={now} tone={output.stable ? 'ink' : 'outside'} />
        <Word at={[0, 0.3]} tone="quiet">{t`forks`}</Word>
      </Scene>
    )
  },
})

export const tailSwing = present(tailSwingCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Aisle needed`, 'length', o.aisle_m),
    hero(say, t`Tail swings out`, 'length', o.tailOut_m),
    hero(say, t`Sweeps`, 'length', o.sweptWidth_m),
  ],
  steps: (_i, o) => [
    t`turns about a point ${fig(o.turnCentre_m)} m to the side; tail ${fig(o.tailRadius_m)} m, load corner ${fig(o.loadRadius_m)} m round it`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`Corner of the load`,
      at: [i.load.width_m / 2, i.load.faceAhead_m + i.load.length_m],
      value: t`${say('length', i.load.width_m)} wide, ${say('length', i.load.length_m)} long`,
      to: ([x, y]) => ({ load: { width_m: x * 2, length_m: y - i.load.faceAhead_m } }),
    },
    {
      label: t`Corner of the tail`,
      at: [i.halfWidth_m, -i.wheelbase_m - i.tailOverhang_m],
      value: say('length', i.tailOverhang_m),
      to: ([x, y]) => ({ halfWidth_m: x, tailOverhang_m: -y - i.wheelbase_m }),
    },
  ],
  Drawing: ({ input, output, say }) => {
    const c: At = [-output.turnCentre_m, 0]
    const far = Math.max(output.tailRadius_m, output.loadRadius_m)
    const l = input.load
    return (
      <Scene
        box={[...arcOf(far, -80, 80, c), [-input.halfWidth_m, -input.wheelbase_m]]}
        label={t`Plan of a turn: tail radius ${say('length', output.tailRadius_m)}`}
      >
        <Line at={arcOf(output.tailRadius_m, -90, 90, c)} dash tone="near" />
        <Line at={arcOf(output.loadRadius_m, -90, 90, c)} dash tone="quiet" />
        <Line at={arcOf(output.innerRadius_m, -90, 90, c)} dash tone="edge" />
        <Box
          at={[-input.halfWidth_m, -input.wheelbase_m - input.tailOverhang_m]}
          w={input.halfWidth_m * 2}
          h={input.wheelbase_m + input.tailOverhang_m + l.faceAhead_m}
          fill="sheet"
        />
        <Box at={[-l.width_m / 2, l.faceAhead_m]} w={l.width_m} h={l.length_m} fill="sunk" />
        <Round at={c} r={0.07} fill="ink" />
        <Line at={[c, [0, 0]]} dash tone="edge" />
        <Word at={[output.tailRadius_m - output.turnCentre_m, -input.wheelbase_m * 0.4]} anchor="end" tone="near" bold>
          {say('length', output.tailRadius_m)}
        </Word>
      </Scene>
    )
  },
})
