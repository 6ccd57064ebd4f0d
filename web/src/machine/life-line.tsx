import type { LifeLine, MachineFile } from '@geolabe/contract'
import { type Grade, itemsOf, limitsOf, measureLabel, measureUnit, readingTrend } from '@geolabe/core'
import { useState } from 'react'
import { Link } from 'react-router'
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import { useLife } from '../api/queries'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { gradeWords } from '../language/words'
import { Choice } from '../look/choice'
import { Loaded, Sheet } from '../look/page'
import { day, dayOfMonth } from '../look/when'

const lanes = [t`Shifts`, t`Defects`, t`Repairs`, t`Duties`] as const
const date = (t: number) => dayOfMonth(new Date(t).toISOString())

interface Mark {
  t: number
  lane: number
  text: string
}

/** Shifts, defects, repairs, duties and readings of one machine on one time axis. */
export function LifeLinePanel({ file }: { file: MachineFile }) {
  const [days, setDays] = useState<'14' | '60' | '365'>('60')
  const life = useLife(file.definition.id, Number(days))
  return (
    <>
      <div className="mb-3 max-w-md">
        <Choice
          label={t`How far back`}
          hideLabel
          value={days}
          onChange={setDays}
          options={[
            { value: '14', label: t`Two weeks` },
            { value: '60', label: t`Two months` },
            { value: '365', label: t`A year` },
          ]}
        />
      </div>
      <Loaded query={life}>{(l) => <Drawn life={l} file={file} />}</Loaded>
    </>
  )
}

function marksOf(l: LifeLine): Mark[] {
  const at = (iso: string) => Date.parse(iso.length === 10 ? `${iso}T12:00:00Z` : iso)
  return [
    ...l.shifts.map((s) => ({ t: at(s.openedAt), lane: 0, text: `${s.by.name}${s.hours === null ? '' : `, ${s.hours} h`}` })),
    ...l.defects.map((d) => ({ t: at(d.from), lane: 1, text: `${gradeWords[d.grade as Grade].label}: ${d.where}: ${d.words}` })),
    ...l.repairs.map((r) => ({ t: at(r.at), lane: 2, text: `${r.by.name}: ${r.words}` })),
    ...l.duties.map((d) => ({ t: at(d.on), lane: 3, text: d.label })),
  ]
}

interface Drawing {
  cx?: number
  cy?: number
  payload?: Mark
}

/** Each lane its own shape, so that nothing is told by colour alone. */
function Shape({ cx = 0, cy = 0, payload }: Drawing) {
  const common = { stroke: 'var(--ink)', strokeWidth: 1.4 }
  if (payload?.lane === 1) return <rect x={cx - 6} y={cy - 6} width={12} height={12} fill="var(--outside)" {...common} />
  if (payload?.lane === 2)
    return <path d={`M${cx} ${cy - 7}L${cx + 7} ${cy}L${cx} ${cy + 7}L${cx - 7} ${cy}Z`} fill="var(--accent)" {...common} />
  if (payload?.lane === 3) return <path d={`M${cx} ${cy - 6}L${cx + 6} ${cy + 5}H${cx - 6}Z`} fill="var(--sheet)" {...common} />
  return <circle cx={cx} cy={cy} r={5} fill="var(--ink)" />
}

function Said({ active, payload }: { active?: boolean; payload?: readonly { payload?: Mark }[] }) {
  const m = payload?.[0]?.payload
  if (!active || !m) return null
  return (
    <div className="max-w-72 rounded-lg border-2 border-ink bg-paper px-3 py-1.5">
      <p className="font-semibold">
        {lanes[m.lane]}, {date(m.t)}
      </p>
      <p>{m.text}</p>
    </div>
  )
}

function Drawn({ life, file }: { life: LifeLine; file: MachineFile }) {
  const marks = marksOf(life)
  const domain: [number, number] = [Date.parse(life.from), Date.parse(life.to)]
  const measured = itemsOf(file.definition.walkround).flatMap(({ item }) =>
    item.measure && life.readings.filter((r) => r.item === item.id).length > 1 ? [{ item, measure: item.measure }] : [],
  )
  const [chosen, setChosen] = useState<string | null>(null)
  // What moves most against its limit is shown first.
  const first = [...measured].sort((a, b) => change(life, b.item.id) - change(life, a.item.id))[0]
  const shown = measured.find((x) => x.item.id === chosen) ?? first
  const axis = {
    dataKey: 't',
    type: 'number' as const,
    domain,
    tickFormatter: date,
    tick: { fill: 'var(--ink)', fontSize: 13 },
    stroke: 'var(--edge)',
  }
  const own = shown ? life.readings.filter((r) => r.item === shown.item.id) : []
  const limits = shown ? limitsOf(shown.measure) : null
  const trend = shown ? readingTrend(shown.measure, own) : null
  const unit = shown ? measureUnit(shown.measure) : ''
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4 pb-8">
      <Sheet className="overflow-x-auto">
        <div className="h-60" role="img" aria-label={t`${marks.length} events from ${date(domain[0])} to ${date(domain[1])}`}>
          <ResponsiveContainer width="100%" height="100%">
            <ScatterChart margin={{ top: 8, right: 16, bottom: 4, left: 8 }}>
              <CartesianGrid stroke="var(--line)" vertical={false} />
              <XAxis {...axis} />
              <YAxis
                dataKey="lane"
                type="number"
                domain={[-0.5, 3.5]}
                ticks={[0, 1, 2, 3]}
                tickFormatter={(v: number) => lanes[v] ?? ''}
                tick={{ fill: 'var(--ink)', fontSize: 14 }}
                stroke="var(--edge)"
                width={76}
                reversed
              />
              <Tooltip content={<Said />} cursor={{ stroke: 'var(--edge)' }} isAnimationActive={false} />
              {life.defects.map((d) => (
                <ReferenceLine
                  key={d.id}
                  segment={[
                    { x: Math.max(domain[0], Date.parse(d.from)), y: 1 },
                    { x: d.to ? Date.parse(d.to) : domain[1], y: 1 },
                  ]}
                  stroke="var(--outside)"
                  strokeWidth={d.grade === 'watch' ? 2 : 5}
                  {...(d.grade === 'watch' ? { strokeDasharray: '5 4' } : {})}
                />
              ))}
              <Scatter data={marks} shape={<Shape />} isAnimationActive={false} />
            </ScatterChart>
          </ResponsiveContainer>
        </div>
        {shown && limits && (
          <>
            <div className="mt-4 flex flex-wrap items-end justify-between gap-3">
              <label className="font-semibold">
                {t`Reading`}
                <select className="field mt-1" value={shown.item.id} onChange={(e) => setChosen(e.target.value)}>
                  {measured.map(({ item, measure }) => (
                    <option key={item.id} value={item.id}>
                      {item.label}, {measureLabel(measure).toLowerCase()}
                    </option>
                  ))}
                </select>
              </label>
              <p>
                {trend?.reaches
                  ? rich`At this rate at its limit about ${<strong className="figure">{trend.reaches}</strong>}`
                  : (trend?.why ?? t`Not going towards its limit.`)}
              </p>
            </div>
            <div
              className="h-64"
              role="img"
              aria-label={t`${shown.item.label}: ${own.length} readings, the last ${own.at(-1)?.value} ${unit}`}
            >
              <ResponsiveContainer width="100%" height="100%">
                <LineChart
                  data={own.map((r) => ({ t: Date.parse(r.at), value: r.value }))}
                  margin={{ top: 12, right: 16, bottom: 4, left: 8 }}
                >
                  <CartesianGrid stroke="var(--line)" vertical={false} />
                  <XAxis {...axis} />
                  <YAxis
                    domain={[
                      (low: number) => nice(Math.min(low, limits.least ?? low), -1),
                      (high: number) => nice(Math.max(high, limits.most ?? high), 1),
                    ]}
                    tick={{ fill: 'var(--ink)', fontSize: 13 }}
                    stroke="var(--edge)"
                    width={76}
                    tickFormatter={(v: number) => `${Math.round(v * 100) / 100} ${unit}`}
                  />
                  {[limits.least, limits.most].map(
                    (v) =>
                      v !== null && (
                        <ReferenceLine
                          key={v}
                          y={v}
                          stroke="var(--outside)"
                          strokeWidth={2}
                          strokeDasharray="8 5"
                          label={{
                            value: t`limit ${Math.round(v * 100) / 100}`,
                            fill: 'var(--outside)',
                            position: 'insideTopRight',
                            fontSize: 13,
                          }}
                        />
                      ),
                  )}
                  <Line
                    dataKey="value"
                    type="linear"
                    stroke="var(--ink)"
                    strokeWidth={2}
                    dot={{ r: 4, fill: 'var(--ink)' }}
                    isAnimationActive={false}
                  />
                  <Tooltip
                    labelFormatter={(t) => date(Number(t))}
                    formatter={(v) => [`${v} ${unit}`, shown.item.label]}
                    contentStyle={{ background: 'var(--paper)', border: '2px solid var(--ink)', borderRadius: 8 }}
                    isAnimationActive={false}
                  />
                </LineChart>
              </ResponsiveContainer>
            </div>
          </>
        )}
      </Sheet>
      <Sheet title={t`The same in words`}>
        <ul className="grid gap-1.5">
          {marks
            .sort((a, b) => b.t - a.t)
            .slice(0, 40)
            .map((m) => (
              <li key={`${m.t} ${m.lane} ${m.text}`} className="grid gap-x-4 sm:grid-cols-[8rem_6rem_1fr]">
                <span className="text-quiet">{day(new Date(m.t).toISOString())}</span>
                <strong>{lanes[m.lane]?.replace(/s$/, '').replace('Dutie', 'Duty')}</strong>
                <span>{m.text}</span>
              </li>
            ))}
        </ul>
        {life.defects.length > 0 && (
          <p className="mt-3">
            {t`Defects:`}{' '}
            {life.defects.map((d, i) => (
              <span key={d.id}>
                {i > 0 && ', '}
                <Link className="underline underline-offset-4" to={`/defects/${d.id}`}>
                  {d.where}
                </Link>
              </span>
            ))}
          </p>
        )}
      </Sheet>
    </div>
  )
}

function change(l: LifeLine, item: string): number {
  const own = l.readings.filter((r) => r.item === item)
  const [a, b] = [own[0]?.value ?? 0, own.at(-1)?.value ?? 0]
  return a === 0 ? 0 : Math.abs(b - a) / Math.abs(a)
}

/** An end of the axis a little beyond what is shown, in a round figure. */
function nice(v: number, side: 1 | -1): number {
  const room = Math.max(Math.abs(v) * 0.02, 0.05)
  const step = 10 ** Math.floor(Math.log10(room))
  return Math.round((v + side * room) / step) * step
}
