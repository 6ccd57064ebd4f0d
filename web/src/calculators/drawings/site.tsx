import {
  bodiesAt,
  clearanceCalculator,
  crushGap_m,
  edgeSetbackCalculator,
  groundPressureCalculator,
  lineApproachCalculator,
  type MatKind,
  outriggersIn,
  trackPressureCalculator,
  wearCalculator,
  wearTrendCalculator,
} from '@geolabe/core'
import { scaleLinear } from 'd3-scale'
import { t } from '../../language/t'
import { standing } from './mine'
import { fig, hero, kN, present, use, verdictOf, yes } from './present'
import { Arrow, type At, Box, Dim, Earth, Line, Round, Scene, Word } from './scene'

export const wear = present(wearCalculator, {
  hero: (_i, o, say) => [
    {
      label: o.unit === 'share' ? t`Worn` : t`Reading`,
      value: o.unit === 'share' ? say('share', o.value) : `${fig(o.value)} ${o.unit}`,
      verdict: o.verdict === 'ok' ? 'inside' : o.verdict === 'watch' ? 'near' : 'outside',
    },
    { label: t`Limit`, value: o.unit === 'share' ? `${fig(o.limit * 100, 1)} %` : `${fig(o.limit)} ${o.unit}` },
  ],
  steps: (i, o) => [
    i.nominal !== undefined && o.unit === 'share'
      ? t`|${fig(i.nominal)} − ${fig(i.measured)}| / ${fig(i.nominal)} = ${fig(o.value * 100)} % of ${fig(o.limit * 100)} %`
      : t`${fig(o.value)} ${o.unit} against ${fig(o.limit)} ${o.unit}`,
    t`By ${o.source}`,
  ],
  Drawing: ({ input, output }) => {
    const along = scaleLinear([0, Math.max(output.value, output.limit) * 1.25 || 1], [0, 10])
    const [w, l] = [along(output.value), along(output.limit)]
    const tone = output.verdict === 'ok' ? 'inside' : output.verdict === 'watch' ? 'near' : 'outside'
    return (
      <Scene
        box={[
          [0, -1],
          [10, 4],
        ]}
        label={t`Worn ${fig(output.value * (output.unit === 'share' ? 100 : 1))} against a limit of ${fig(output.limit * (output.unit === 'share' ? 100 : 1))}`}
      >
        <Box at={[0, 0.6]} w={10} h={1.6} fill="sunk" tone="edge" />
        <Box at={[0, 0.6]} w={Math.max(0.02, w)} h={1.6} tone={tone} fill={tone} />
        <Line
          at={[
            [l, 0.2],
            [l, 2.6],
          ]}
          width={1}
        />
        <Line
          at={[
            [l * 0.7, 0.6],
            [l * 0.7, 2.2],
          ]}
          dash
          tone="quiet"
        />
        <Word at={[l, 3]}>{t`limit`}</Word>
        <Word at={[l * 0.7, 0.1]} tone="quiet" size={3}>{t`watch from here`}</Word>
        <Word at={[Math.max(w, 0.4), -0.6]} tone={tone} bold>
          {fig(input.measured)}
        </Word>
      </Scene>
    )
  },
})

export const wearTrend = present(wearTrendCalculator, {
  hero: (_i, o) => [
    { label: t`Reaches its limit`, value: o.reaches ?? (o.enough ? t`not within ten years` : t`no trend yet`) },
    { label: t`Between`, value: o.enough ? t`${o.earliest ?? '—'} and ${o.latest ?? t`later`}` : (o.why ?? '') },
  ],
  steps: (i, o) =>
    o.perDay === null
      ? [o.why ?? '']
      : [
          t`${i.readings.length} readings, ${fig(o.perDay * 30, 3)} a month`,
          t`line now at ${fig(o.now ?? 0)}, limit ${fig(i.limit)}`,
        ],
  Drawing: ({ input, output }) => {
    const day = (d: string) => Date.parse(d) / 86_400_000
    const pts = input.readings.filter((r) => !Number.isNaN(day(r.date))).map((r) => ({ x: day(r.date), y: r.value }))
    const end = output.reaches ? day(output.reaches) : Math.max(...pts.map((p) => p.x), 0) + 60
    const x0 = Math.min(...pts.map((p) => p.x), end - 1)
    const ys = [...pts.map((p) => p.y), input.limit]
    const [lo, hi] = [Math.min(...ys), Math.max(...ys)]
    const [across, up] = [scaleLinear([x0, Math.max(end, x0 + 1)], [0, 10]), scaleLinear([lo, Math.max(hi, lo + 1e-9)], [0, 5])]
    const put = (x: number, y: number): At => [across(x), up(y)]
    const last = Math.max(...pts.map((p) => p.x))
    const at = (x: number) => (output.now ?? 0) + (output.perDay ?? 0) * (x - last)
    return (
      <Scene
        box={[
          [-0.5, -0.6],
          [10.5, 5.6],
        ]}
        label={t`Readings and the line through them, limit ${fig(input.limit)}`}
      >
        <Line at={[put(x0, input.limit), put(end, input.limit)]} tone="outside" width={0.8} />
        <Word at={[0, put(x0, input.limit)[1] + 0.45]} anchor="start" tone="outside">{t`limit ${fig(input.limit)}`}</Word>
        {output.enough && <Line at={[put(x0, at(x0)), put(end, at(end))]} dash />}
        {pts.map((p) => (
          <Round key={`${p.x} ${p.y}`} at={put(p.x, p.y)} r={0.14} fill="ink" />
        ))}
        {output.reaches && (
          <Word at={[10, put(end, input.limit)[1] - 0.5]} anchor="end">
            {output.reaches}
          </Word>
        )}
      </Scene>
    )
  },
})

export const lineApproach = present(lineApproachCalculator, {
  mine: ({ place }) => {
    const line = place.features.find((f) => f.kind === 'overhead')
    return line ? { voltage_kV: line.voltage_kV ?? null } : null
  },
  hero: (_i, o, say) => [
    hero(say, t`Keep away at least`, 'length', o.required_m, t`ask the utility`),
    yes(t`This is`, o.ok, t`far enough`, t`${o.short_m === null ? '' : say('length', o.short_m)} too near`),
  ],
  steps: (i, o) => [
    `${i.voltage_kV === null ? t`voltage unknown` : `${fig(i.voltage_kV, 0)} kV`} → ${o.required_m === null ? 'no figure' : `${fig(o.required_m)} m`}`,
    t`${fig(i.distance_m)} m − sag ${fig(i.sag_m ?? 0)} − blow-out ${fig(i.blowOut_m ?? 0)} = ${fig(i.distance_m - (i.sag_m ?? 0) - (i.blowOut_m ?? 0))} m left`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`Boom tip`,
      at: [Math.max(0.3, i.distance_m), 8],
      value: say('length', i.distance_m),
      to: ([x]) => ({ distance_m: x }),
    },
  ],
  Drawing: ({ input, output, say }) => {
    const r = output.required_m ?? 5
    const d = Math.max(0.3, input.distance_m)
    const near = output.ok === true ? 'inside' : output.ok === null ? 'unproven' : 'outside'
    return (
      <Scene
        box={[
          [-r - 1, 8 - r],
          [Math.max(d, r) + 3, 9 + r * 0.4],
        ]}
        label={t`Wire, the zone of ${say('length', r)} round it, boom tip ${say('length', d)} away`}
      >
        <Round at={[0, 8]} r={r} fill={near} tone={near} />
        <Round at={[0, 8]} r={0.12} fill="ink" />
        <Line
          at={[
            [0, 8 - r - 1],
            [0, 8 + r * 0.5],
          ]}
          tone="edge"
          dash
        />
        <Line
          at={[
            [d + r * 0.5, 8 - r],
            [d, 8],
          ]}
          width={1.6}
        />
        <Dim a={[0, 8]} b={[d, 8]} off={5}>
          {say('length', d)}
        </Dim>
        <Word at={[0, 8 - r * 0.6]} tone={near}>
          {output.required_m === null ? t`not proven` : say('length', r)}
        </Word>
      </Scene>
    )
  },
})

export const edgeSetback = present(edgeSetbackCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Stay back`, 'length', o.required_m),
    o.engineer
      ? { label: t`Here`, value: t`an engineer decides`, verdict: 'not-proven' as const }
      : yes(t`This is`, o.ok, t`far enough`, t`${say('length', o.short_m)} short`),
  ],
  steps: (i, o) => [
    t`${i.soil === 'firm' ? '1' : '2'} × ${fig(i.depth_m)} m depth = ${fig(o.required_m)} m; stands ${fig(i.padEdgeToToe_m)} m from the toe`,
  ],
  grips: (i, _o, say) => [
    {
      label: t`Edge of the pad`,
      at: [i.padEdgeToToe_m, 0.07],
      value: say('length', i.padEdgeToToe_m),
      to: ([x]) => ({ padEdgeToToe_m: x }),
    },
    { label: t`Foot of the edge`, at: [0, -i.depth_m], value: say('length', i.depth_m), to: ([, y]) => ({ depth_m: -y }) },
  ],
  Drawing: ({ input, output, say }) => {
    const { depth_m: h, padEdgeToToe_m: d } = input
    const tone = output.engineer ? 'unproven' : output.ok ? 'inside' : 'outside'
    const far = Math.max(d, output.required_m) + 1.2
    return (
      <Scene
        box={[
          [-1.5, -h - 0.6],
          [far, 1.4],
        ]}
        label={t`Edge ${say('length', h)} deep, pad ${say('length', d)} from its toe`}
      >
        <Line
          at={[
            [far, 0],
            [0, 0],
            [0, -h],
            [-1.5, -h],
          ]}
          width={1}
        />
        <Line
          at={[
            [0, -h],
            [output.required_m, 0],
          ]}
          dash
          tone={tone}
        />
        <Box at={[d, 0]} w={0.7} h={0.14} fill="ink" />
        <Arrow from={[d + 0.35, 1.2]} to={[d + 0.35, 0.16]} />
        <Dim a={[0, 0]} b={[d, 0]} off={7}>
          {say('length', d)}
        </Dim>
        <Dim a={[0, -h]} b={[0, 0]} off={-4}>
          {say('length', h)}
        </Dim>
      </Scene>
    )
  },
})

/** A mat as the calculator asks for it: without its name. */
const matOf = ({ id: _id, label: _label, ...mat }: MatKind) => mat

export const groundPressure = present(groundPressureCalculator, {
  mine: (at) => {
    const stood = standing(at)
    // The outrigger that presses hardest in the last lift.
    const worst = [...(stood?.lift?.assessment.outriggers ?? [])].sort((a, b) => b.upper_N - a.upper_N)[0]
    const float = stood?.machine.outriggers.find((o) => o.id === worst?.id)?.float
    const setting = stood && outriggersIn(stood.setup.standing).find((o) => o.id === worst?.id)
    if (!worst || !float || !setting) return null
    const { mat, ground } = setting
    return {
      pad: { length_m: float.length_m, width_m: float.width_m },
      reaction_N: worst.upper_N,
      mat: mat ? matOf(mat) : undefined,
      // What is not known of the ground is not taken from the example.
      allowable_kPa: ground?.allowable_kPa,
      soil: ground?.soil,
    }
  },
  hero: (_i, o, say) => [
    hero(say, t`On the ground`, 'pressure', o.formation_kPa),
    use(say, t`Used of what it allows`, o.utilisation),
    hero(say, t`Square that would do`, 'length', o.requiredSide_m, 'no figure'),
  ],
  steps: (i, o) => [
    i.mat
      ? t`mat works over ${fig(o.effective.length_m)} × ${fig(o.effective.width_m)} m (${o.governs === 'mat-size' ? t`its whole size` : t`${o.governs} of the mat`})`
      : t`pad ${fig(i.pad.length_m)} × ${fig(i.pad.width_m)} m`,
    t`(${kN(i.reaction_N)}${i.mat?.mass_kg ? ` + ${kN(i.mat.mass_kg * 9.80665)}` : ''}) / area = ${fig(o.formation_kPa, 0)} kPa${o.allowable_kPa === null ? '' : t` of ${fig(o.allowable_kPa, 0)} kPa${o.presumed ? t`, presumed` : ''}`}`,
  ],
  grips: (i, _o, say) => [
    i.mat
      ? {
          label: t`Edge of the mat`,
          at: [i.mat.length_m / 2, i.mat.thickness_m / 2],
          value: say('length', i.mat.length_m),
          to: ([x]) => ({ mat: { length_m: x * 2 } }),
        }
      : {
          label: t`Edge of the pad`,
          at: [i.pad.length_m / 2, 0.025],
          value: say('length', i.pad.length_m),
          to: ([x]) => ({ pad: { length_m: x * 2 } }),
        },
  ],
  Drawing: ({ input, output, say }) => {
    const m = input.mat
    const [w, thick] = [m?.length_m ?? input.pad.length_m, m?.thickness_m ?? 0.02]
    const e = output.effective.length_m
    const out = input.layer ? input.layer.thickness_m * Math.tan((input.layer.spreadFromVertical_deg * Math.PI) / 180) : 0
    const deep = input.layer?.thickness_m ?? 0
    const verdict = verdictOf(output.utilisation)
    const tone = verdict === 'not-proven' ? 'unproven' : verdict
    const n = 7
    return (
      <Scene
        box={[
          [-w / 2 - 0.5, -0.55 - deep],
          [w / 2 + 0.5, thick + 0.9],
        ]}
        label={t`Leg of ${say('force', input.reaction_N)} on ${m ? t`a mat` : t`its pad`}, ${say('pressure', output.formation_kPa)} on the ground`}
      >
        <Earth from={-w / 2 - 0.6} to={w / 2 + 0.6} deep={deep + 0.9} />
        {m && <Box at={[-w / 2, 0]} w={w} h={thick} fill="sheet" />}
        {m && <Box at={[-e / 2, 0]} w={e} h={thick} fill={tone} tone={tone} />}
        <Box at={[-input.pad.length_m / 2, m ? thick : 0]} w={input.pad.length_m} h={0.05} fill="ink" />
        <Arrow from={[0, thick + 0.75]} to={[0, thick + 0.07]} width={1.4}>
          {say('force', input.reaction_N)}
        </Arrow>
        {deep > 0 && (
          <Line
            at={[
              [-e / 2, 0],
              [-e / 2 - out, -deep],
              [e / 2 + out, -deep],
              [e / 2, 0],
            ]}
            dash
            tone="quiet"
          />
        )}
        {Array.from({ length: n }, (_, i) => {
          const x = -e / 2 - out + ((i + 0.5) * (e + 2 * out)) / n
          return <Arrow key={x} from={[x, -deep - 0.32]} to={[x, -deep - 0.02]} tone={tone} width={0.6} />
        })}
        <Word at={[0, -deep - 0.45]} tone={tone} bold>
          {say('pressure', output.formation_kPa)}
        </Word>
      </Scene>
    )
  },
})

export const trackPressure = present(trackPressureCalculator, {
  hero: (_i, o, say) => o.tracks.map((track) => hero(say, t`Greatest, ${track.side}`, 'pressure', track.max_kPa)),
  steps: (i, o) =>
    o.tracks.map(
      (track) =>
        t`${track.side}: ${kN(track.force_N)} over ${fig(track.contact_m)} of ${fig(i.track.length_m)} m → ${fig(track.min_kPa, 0)} to ${fig(track.max_kPa, 0)} kPa`,
    ),
  Drawing: ({ input, output, say }) => {
    const L = input.track.length_m
    const most = Math.max(...output.tracks.map((track) => track.max_kPa), 1)
    const front = input.eccentricityLong_m >= 0
    return (
      <Scene
        box={[
          [-L / 2 - 0.6, -L * 0.9],
          [L / 2 + 0.6, L * 0.3],
        ]}
        label={t`Pressure along each track, the greater under the end that the weight leans to`}
      >
        {output.tracks.map((track, k) => {
          const y = -k * L * 0.56
          const h = (p: number) => (p / most) * L * 0.22
          const end = L / 2 - track.contact_m
          const shape: At[] = [
            [L / 2, y],
            [L / 2, y - h(track.max_kPa)],
            [end, y - h(track.min_kPa)],
            [end, y],
          ]
          const flip = (p: At): At => (front ? p : [-p[0], p[1]])
          return (
            <g key={track.side}>
              <Box at={[-L / 2, y]} w={L} h={L * 0.07} fill="sheet" />
              <Line at={shape.map(flip)} close tone="near" fill="near" />
              <Word at={flip([L / 2 - 0.1, y - h(track.max_kPa) - L * 0.045])} anchor={front ? 'end' : 'start'} bold>
                {say('pressure', track.max_kPa)}
              </Word>
              <Word at={[-L / 2, y + L * 0.14]} anchor="start" tone="quiet">
                {track.side}, {say('force', track.force_N)}
              </Word>
            </g>
          )
        })}
      </Scene>
    )
  },
})

export const clearance = present(clearanceCalculator, {
  hero: (_i, o, say) => [
    {
      ...hero(say, t`Least room`, 'length', o.least_m),
      verdict: o.least_m <= 0 ? 'outside' : o.least_m < crushGap_m ? 'near' : 'inside',
    },
    { label: t`Between`, value: t`${o.body} and ${o.obstacle}` },
  ],
  steps: (_i, o) => [
    t`nearest at slew ${fig(o.at.slew_deg, 1)}°, boom ${fig(o.at.boom_m)} m at ${fig(o.at.angle_deg, 1)}°`,
    t`each step’s motion is taken off, so the true room is at most a centimetre more`,
  ],
  grips: (i, _o, say) =>
    i.obstacles.flatMap((o, at) =>
      o.kind === 'cylinder'
        ? [
            {
              label: o.id,
              at: [-o.y_m, o.x_m] as const,
              value: `${say('length', o.x_m)}, ${say('length', o.y_m)}`,
              to: ([x, y]: At) => ({ obstacles: { [at]: { x_m: y, y_m: -x } } }),
            },
          ]
        : [],
    ),
  Drawing: ({ input, output, say }) => {
    const at = (p: { x: number; y: number }): At => [-p.y, p.x]
    const posed = bodiesAt(input.bodies, output.at)
    const starts = [input.path[0], input.path[input.path.length - 1]].flatMap((p) => (p ? bodiesAt(input.bodies, p) : []))
    const boom = posed.find((b) => b.name === 'boom')
    const box: At[] = [...posed, ...starts].flatMap((b) => [at(b.a), at(b.b)])
    for (const o of input.obstacles) {
      if (o.kind === 'prism') box.push(...o.points.map((p): At => [-p.y_m, p.x_m]))
      if (o.kind === 'cylinder') box.push([-o.y_m - o.radius_m, o.x_m + o.radius_m])
    }
    const load = posed.find((b) => b.name === 'load')
    const tail = posed.find((b) => b.name === 'tail')
    return (
      <Scene box={box} label={t`Plan: least room ${say('length', output.least_m)} between ${output.body} and ${output.obstacle}`}>
        {input.obstacles.map((o) =>
          o.kind === 'prism' ? (
            <Line
              key={o.id}
              at={o.points.map((p): At => [-p.y_m, p.x_m])}
              close
              fill="edge"
              tone={o.id === output.obstacle ? 'outside' : 'edge'}
              width={0.8}
            />
          ) : o.kind === 'cylinder' ? (
            <Round
              key={o.id}
              at={[-o.y_m, o.x_m]}
              r={o.radius_m}
              fill="edge"
              tone={o.id === output.obstacle ? 'outside' : 'edge'}
            />
          ) : null,
        )}
        {starts
          .filter((b) => b.name === 'boom')
          .map((b) => (
            <Line key={`${b.b.x} ${b.b.y}`} at={[at(b.a), at(b.b)]} tone="edge" dash />
          ))}
        {tail && <Line at={[at(tail.a), at(tail.b)]} width={3} tone="quiet" />}
        {boom && <Line at={[at(boom.a), at(boom.b)]} width={1.8} />}
        {load && <Round at={at(load.a)} r={load.radius_m} fill="near" tone="ink" />}
        <Round at={[0, 0]} r={0.3} fill="ink" />
        {boom && (
          <Word at={[at(boom.b)[0], at(boom.b)[1] + 1]} bold>
            {say('length', output.least_m)}
          </Word>
        )}
      </Scene>
    )
  },
})
