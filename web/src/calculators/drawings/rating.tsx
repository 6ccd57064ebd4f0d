import type { Axis, RatingConfiguration, RatingTable } from '@geolabe/core'
import {
  articulatedRatingCalculator,
  capacityMapCalculator,
  chartPlace,
  chartReadingCalculator,
  counterweightRatingCalculator,
  entriesFor,
  foldingTip,
  heightRatingCalculator,
  hoistChainRatingCalculator,
  stageRatingCalculator,
  supportChoiceCalculator,
  tableCheckCalculator,
} from '@geolabe/core'
import { t } from '../../language/t'
import { feet, spreadOf } from './feet'
import { fig, hero, present, use, verdictOf } from './present'
import { type At, Box, degrees, Earth, Line, plan, polar, Round, Scene, useUnit, Word } from './scene'

/** A table being read: its cells with the ones the figure came from. */
function TableDrawing({
  table,
  configuration,
  row,
  column,
  marked,
}: {
  table: RatingTable
  configuration?: string | undefined
  row?: number | undefined
  column?: number | undefined
  marked?: (i: number, j: number) => string | undefined
}) {
  const { axes, configurations } = table
  const g = (configurations.find((x) => x.id === configuration) ?? configurations[0]) as RatingConfiguration
  const near = row === undefined ? 0 : Math.max(0, g.rows.findIndex((r) => Number(r.at) >= row) - 3)
  const rows = g.rows.slice(near, near + 7)
  const from = column === undefined ? 0 : Math.max(0, g.columns.findIndex((c) => Number(c) >= column) - 2)
  const columns = g.columns.slice(from, from + 5)
  const readFrom = (axis: Axis, values: readonly (number | string)[], v: number | undefined): readonly number[] =>
    v === undefined || typeof values[0] !== 'number'
      ? v === undefined
        ? values.map((_, k) => k)
        : []
      : (entriesFor(axis, values.length, (k) => values[k] ?? 0, v) ?? [])
  const readRows = readFrom(
    axes.row,
    g.rows.map((r) => r.at),
    row,
  )
  const readColumns = readFrom(axes.column, g.columns, column)
  const [w, h] = [2.6, 1]
  return (
    <Scene
      box={[
        [-2.4, 0.4],
        [columns.length * w, -(rows.length + 0.4) * h],
      ]}
      label={t`${g.label}: the rows and columns about the reading`}
    >
      <Word at={[-1.2, 0]} tone="quiet" size={2.8}>{`${axes.row.label} ↓`}</Word>
      {columns.map((c, j) => (
        <Word key={`${c}`} at={[(j + 0.5) * w, 0]} size={3} bold={readColumns.includes(from + j)}>
          {typeof c === 'number' ? fig(c) : c}
        </Word>
      ))}
      {rows.map(({ at: r, ratings_kg }, i) => (
        <g key={`${r}`}>
          <Word at={[-1.2, -(i + 1) * h]} size={3} bold={readRows.includes(near + i)}>
            {typeof r === 'number' ? fig(r) : r}
          </Word>
          {columns.map((c, j) => {
            const kg = ratings_kg[from + j] ?? null
            const read = row !== undefined && readRows.includes(near + i) && readColumns.includes(from + j)
            const odd = marked?.(near + i, from + j)
            return (
              <g key={`${c}`}>
                <Box
                  at={[j * w + 0.06, -(i + 1.45) * h]}
                  w={w - 0.12}
                  h={h * 0.9}
                  tone={odd ? 'outside' : read ? 'ink' : 'edge'}
                  fill={odd ? 'outside' : read ? 'near' : 'sheet'}
                />
                <Word at={[(j + 0.5) * w, -(i + 1) * h]} size={3} bold={read || odd !== undefined}>
                  {kg === null ? '–' : fig(kg, 0)}
                </Word>
              </g>
            )
          })}
        </g>
      ))}
    </Scene>
  )
}

export const chartReading = present(chartReadingCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Left for the load`, 'mass', o.net_kg),
    hero(say, t`Table says`, 'mass', o.gross_kg),
    ...(o.utilisation === null ? [] : [use(say, t`Used, by ${o.governs}`, o.utilisation)]),
  ],
  steps: (i, o) => [
    `${o.rule === 'worse-row' ? t`worse row of` : t`straight line between`} ${o.rows.map((r) => (r.rating_kg === null ? t`not rated` : t`${fig(r.rating_kg, 0)} kg`)).join(' and ') || 'nothing'}`,
    t`less ${i.deductions.map((d) => t`${d.name} ${fig(d.mass_kg, 0)} kg`).join(', ') || t`nothing`} = ${o.net_kg === 'not-rated' ? t`not rated` : t`${fig(o.net_kg, 0)} kg`}`,
  ],
  Drawing: ({ input }) => {
    const { row, column } = chartPlace(input)
    return <TableDrawing table={input.chart} configuration={input.configuration} row={row} column={column} />
  },
})

const sectionAt = (tower: RatingTable, configuration: string, section: string) => {
  const g = tower.configurations.find((x) => x.id === configuration)
  const j = g?.columnNames?.indexOf(section) ?? -1
  return j < 0 ? undefined : Number(g?.columns[j])
}
export const stageRating = present(stageRatingCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Rated`, 'mass', o.allowed_kg),
    use(say, t`Used`, o.utilisation),
    hero(say, t`This load goes out to`, 'length', o.furthest_m, t`nowhere here`),
  ],
  steps: (i, o) => [
    t`${i.section} at ${fig(i.radius_m)} m: ${o.allowed_kg === 'not-rated' ? t`not rated` : t`${fig(o.allowed_kg, 0)} kg`} for ${fig(i.load_kg, 0)} kg`,
  ],
  Drawing: ({ input }) => (
    <TableDrawing
      table={input.table}
      configuration={input.configuration}
      row={input.radius_m}
      column={sectionAt(input.table, input.configuration, input.section)}
    />
  ),
})

export const articulatedRating = present(articulatedRatingCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Rated at the worst point`, 'mass', o.allowed_kg),
    use(say, t`Used there`, o.utilisation),
    hero(say, t`Rated at the end`, 'mass', o.end.allowed_kg),
  ],
  steps: (_i, o) => [
    t`furthest out ${fig(o.worst.radius_m)} m with the inner boom at ${fig(o.worst.angle_deg, 1)}°; ends at ${fig(o.end.radius_m)} m`,
  ],
  grips: (i, _o, say) =>
    i.path.map((p, at) => {
      const foot: At = [-i.pivot.back_m, i.pivot.height_m]
      const tip = foldingTip({ inner_m: i.inner_m, outer_m: i.outer_m, pivot: i.pivot }, p)
      const elbow = polar(i.inner_m, p.angle_deg, foot)
      return {
        label: t`Tip, pose ${at + 1}`,
        at: [tip.radius_m, tip.height_m] as const,
        value: say('length', tip.radius_m),
        to: ([x, y]: At) => ({ path: { [at]: { fold_deg: p.angle_deg - degrees(x - elbow[0], y - elbow[1]) } } }),
      }
    }),
  Drawing: ({ input, output, say }) => {
    const foot: At = [-input.pivot.back_m, input.pivot.height_m]
    const b = { inner_m: input.inner_m, outer_m: input.outer_m, pivot: input.pivot }
    const tips = input.path.map((p) => foldingTip(b, p))
    const elbows = input.path.map((p) => polar(input.inner_m, p.angle_deg, foot))
    const tip = (tower: { radius_m: number; height_m: number }): At => [tower.radius_m, tower.height_m]
    return (
      <Scene
        box={[foot, [0, 0], ...elbows, ...tips.map(tip), tip(output.worst)]}
        label={t`The path of the tip, worst at ${say('length', output.worst.radius_m)}`}
      >
        <Earth from={-3} to={Math.max(3, output.worst.radius_m + 2)} />
        {elbows.map((e, i) => (
          <Line
            key={`${e[0]} ${e[1]} ${tips[i]?.radius_m}`}
            at={[foot, e, tip(tips[i] as { radius_m: number; height_m: number })]}
            width={i === elbows.length - 1 ? 1.6 : 0.7}
            tone={i === elbows.length - 1 ? 'ink' : 'quiet'}
          />
        ))}
        <Round at={tip(output.worst)} r={0.25} fill="near" tone="outside" />
        <Word at={[output.worst.radius_m, output.worst.height_m + 0.7]} bold tone="outside">
          {say('length', output.worst.radius_m)}
        </Word>
      </Scene>
    )
  },
})

export const counterweightRating = present(counterweightRatingCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Rated`, 'mass', o.allowed_kg),
    use(say, t`Used`, o.utilisation),
    hero(say, t`Least extension for this load`, 'length', o.needs_extension_m, t`none listed`),
  ],
  steps: (i, o) => [
    t`${i.slabs} slabs, out ${fig(i.extension_m)} m, ${o.configuration ?? t`no such load centre`}: ${o.allowed_kg === 'not-rated' ? t`not rated: only listed steps are` : t`${fig(o.allowed_kg, 0)} kg`}`,
  ],
  Drawing: ({ input, output }) => (
    <TableDrawing
      table={input.table}
      configuration={output.configuration ?? undefined}
      row={input.extension_m}
      column={input.slabs}
    />
  ),
})

export const supportChoice = present(supportChoiceCalculator, {
  hero: (i, o, say) => [
    { label: t`The least work that takes it`, value: o.first === null ? t`none of these` : (i.states[o.first - 1] ?? '') },
    ...o.options.map((x) => ({
      label: x.state,
      value: x.net_kg === null ? t`not rated` : say('mass', x.net_kg),
      verdict: verdictOf(x.utilisation),
    })),
  ],
  steps: (i, o) =>
    o.options.map((x) =>
      x.net_kg === null
        ? t`${x.state}: rates nothing somewhere on the way`
        : t`${x.state}: ${fig(x.net_kg, 0)} kg net at the worst point, ${fig(i.load_kg, 0)} kg asked`,
    ),
  Drawing: ({ input, output, say }) => {
    const most = Math.max(input.load_kg, ...output.options.map((x) => x.net_kg ?? 0), 1) * 1.15
    const wide = 10 / output.options.length
    const high = (kg: number) => (kg / most) * 6
    return (
      <Scene
        box={[
          [0, -0.8],
          [10, 6.4],
        ]}
        label={t`What each way of standing rates, beside the load of ${say('mass', input.load_kg)}`}
      >
        {output.options.map((x, i) => {
          const verdict = verdictOf(x.utilisation)
          const tone = verdict === 'not-proven' ? 'unproven' : verdict
          return (
            <g key={x.state}>
              <Box at={[i * wide + wide * 0.2, 0]} w={wide * 0.6} h={high(x.net_kg ?? 0)} fill={tone} tone={tone} />
              <Word at={[(i + 0.5) * wide, high(x.net_kg ?? 0) + 0.35]} size={2.7} bold>
                {x.net_kg === null ? t`not rated` : say('mass', x.net_kg)}
              </Word>
              <Word at={[(i + 0.5) * wide, -0.5]}>{x.state}</Word>
            </g>
          )
        })}
        <Line
          at={[
            [0, high(input.load_kg)],
            [10, high(input.load_kg)],
          ]}
          dash
        />
        <Word at={[0, high(input.load_kg) + 0.2]} size={2.7} anchor="start">
          {t`the load`}
        </Word>
      </Scene>
    )
  },
})

export const heightRating = present(heightRatingCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Each tower rated`, 'mass', o.perTower_kg),
    use(say, t`Fullest, ${o.governs ?? t`none`}`, o.utilisation),
    hero(say, t`This stage ends at`, 'length', o.stage_m, t`above the last`),
  ],
  steps: (_i, o) =>
    o.towers.map(
      (tower) =>
        t`${tower.id}: ${fig(tower.load_kg, 0)} kg${tower.utilisation === null ? '' : `, ${fig(tower.utilisation * 100, 0)} %`}`,
    ),
  grips: (i, _o, say) => [
    { label: t`Height of the towers`, at: [0, i.height_m], value: say('length', i.height_m), to: ([, y]) => ({ height_m: y }) },
  ],
  Drawing: ({ input, output, say }) => {
    const n = input.towers.length
    const h = Math.max(input.height_m, 1)
    const step = h * 0.55
    return (
      <Scene
        box={[
          [-step * 0.4, 0],
          [n * step, h * 1.2],
        ]}
        label={t`Towers at ${say('length', h)} with the share of each`}
      >
        <Earth from={-step} to={(n + 0.4) * step} />
        {input.towers.map((tower, i) => {
          const use_ = output.towers[i]?.utilisation ?? null
          const tone = use_ === null ? 'unproven' : use_ > 1 ? 'outside' : use_ >= 0.9 ? 'near' : 'inside'
          return (
            <g key={tower.id}>
              <Box at={[i * step, 0]} w={step * 0.3} h={h} fill="sheet" />
              <Box at={[i * step, 0]} w={step * 0.3} h={h * Math.min(1, use_ ?? 0)} tone={tone} fill={tone} />
              <Word at={[i * step + step * 0.15, h * 1.08]} size={2.7} bold>
                {say('mass', tower.load_kg)}
              </Word>
              <Word at={[i * step + step * 0.15, -h * 0.07]}>{tower.id}</Word>
            </g>
          )
        })}
        {output.stage_m !== null && (
          <Line
            at={[
              [-step * 0.3, output.stage_m],
              [n * step, output.stage_m],
            ]}
            dash
            tone="quiet"
          />
        )}
      </Scene>
    )
  },
})

export const hoistChainRating = present(hoistChainRatingCalculator, {
  hero: (_i, o, say) => [
    hero(say, t`Rated`, 'mass', o.allowed_kg),
    use(say, t`Used${o.governs ? t`, by ${o.governs}` : ''}`, o.utilisation),
    ...(o.missing.length > 0 ? [{ label: t`No mark on`, value: o.missing.join(', '), verdict: 'not-proven' as const }] : []),
  ],
  steps: (i, o) => [
    t`least of hoist ${i.hoist_kg ?? '—'}, trolley ${i.trolley_kg ?? '—'}, beam ${i.beam_kg ?? '—'}, hook ${i.hook_kg ?? '—'} kg${o.governs ? `: ${o.governs}` : ''}`,
  ],
  Drawing: ({ input, output, say }) => {
    const mark = (name: string, kg: number | null, at: At) => (
      <Word
        key={name}
        at={at}
        anchor="start"
        bold={output.governs === name}
        tone={kg === null ? 'outside' : output.governs === name ? 'near' : 'ink'}
      >
        {`${name} ${kg === null ? t`no mark` : say('mass', kg)}`}
      </Word>
    )
    return (
      <Scene
        box={[
          [-3, -4],
          [5, 1],
        ]}
        label={t`Beam, trolley, hoist, chain and hook with their marks`}
      >
        <Box at={[-3.5, 0]} w={7} h={0.5} fill="sunk" />
        <Box at={[-0.6, -0.5]} w={1.2} h={0.4} fill="sheet" />
        <Box at={[-0.45, -1.4]} w={0.9} h={0.9} fill="sheet" />
        <Line
          at={[
            [0, -1.4],
            [0, -2.8],
          ]}
          width={1.2}
          dash
        />
        <Round at={[0, -3]} r={0.2} fill="none" />
        <Box at={[-0.7, -4.1]} w={1.4} h={0.8} fill="sunk" />
        {mark('beam', input.beam_kg, [1.2, 0.9])}
        {mark('trolley', input.trolley_kg, [1.2, -0.3])}
        {mark('hoist', input.hoist_kg, [1.2, -1])}
        {mark('hook', input.hook_kg, [1.2, -3])}
      </Scene>
    )
  },
})

interface MapOut {
  radii_m: number[]
  slew_deg: number[]
  utilisation: (number | null)[]
  governs: (string | null)[]
}
export const capacityMap = present(capacityMapCalculator, {
  hero: (_i, o, say) => {
    const rated = o.utilisation.filter((u) => u !== null)
    return [
      {
        label: t`Inside the limits`,
        value: t`${say('share', rated.filter((u) => (u as number) <= 1).length / o.utilisation.length)} of the cells`,
      },
      { label: t`Not rated, or not proven`, value: say('share', 1 - rated.length / o.utilisation.length) },
    ]
  },
  steps: (_i, o) => [
    t`${o.slew_deg.length} slews × ${o.radii_m.length} radii; ends first by ${[...new Set(o.governs.filter((g, i) => g !== null && (o.utilisation[i] ?? 0) > 1))].join(', ') || 'the table'}`,
  ],
  asMeasured: spreadOf((i) => i.footprint, 'footprint'),
  grips: (i, _o, say) => feet(i.footprint, say, 'footprint'),
  Drawing: ({ input, output }) => {
    const far = Math.max(...output.radii_m)
    return (
      <Scene
        box={[
          [-far, -far],
          [far, far],
        ]}
        label={t`Plan: cells inside, near and outside the limits`}
      >
        <Cells map={output} />
        <Line at={input.footprint.map(plan)} close fill="sheet" />
      </Scene>
    )
  },
})
function Cells({ map }: { map: MapOut }) {
  const u = useUnit()
  return (
    <g aria-hidden="true">
      {map.slew_deg.flatMap((s, j) =>
        map.radii_m.map((r, i) => {
          const use_ = map.utilisation[j * map.radii_m.length + i] ?? null
          const p = polar(r, s)
          const tone = use_ === null ? 'unproven' : use_ > 1 ? 'outside' : use_ >= 0.9 ? 'near' : 'inside'
          const k = u * (use_ === null ? 0.35 : use_ > 1 ? 0.55 : 0.9)
          return (
            <circle
              key={`${s} ${r}`}
              cx={-p[1]}
              cy={-p[0]}
              r={k}
              fill={use_ !== null && use_ > 1 ? 'none' : `var(--${tone})`}
              stroke={`var(--${tone})`}
              strokeWidth={u * 0.25}
            />
          )
        }),
      )}
    </g>
  )
}

export const tableCheck = present(tableCheckCalculator, {
  hero: (_i, o) => [
    { label: t`Cells to ask about`, value: String(o.findings.length), verdict: o.findings.length === 0 ? 'inside' : 'outside' },
  ],
  steps: (_i, o) =>
    o.findings.length === 0
      ? [t`nothing stands out; that is no proof of the table`]
      : o.findings.slice(0, 8).map((f) => t`${f.configuration}, row ${f.rowValue}, column ${f.columnValue}: ${f.message}`),
  Drawing: ({ input, output }) => {
    const first = output.findings[0]
    return (
      <TableDrawing
        table={input.table}
        configuration={first?.configuration}
        row={first && typeof first.rowValue === 'number' ? first.rowValue : undefined}
        marked={(i, j) =>
          output.findings.find((f) => f.configuration === first?.configuration && f.row === i && f.column === j)?.kind
        }
      />
    )
  },
})
