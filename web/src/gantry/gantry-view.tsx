import {
  type Assessment,
  type GantryMachine,
  g_mps2,
  gantryRoom,
  high,
  type LiftPlan,
  nominal,
  type RatingTable,
  rowsFor,
  type Standing,
} from '@geolabe/core'
import { BearingPlan } from '../instruments/bearing-plan'
import { t } from '../language/t'
import { StandMarks } from '../prove/stand-marks'
import { useSay } from '../units/units'
import { workIn } from './draft'

type Towers = Extract<Standing, { on: 'towers' }>
type Room = NonNullable<ReturnType<typeof gantryRoom>>

/** Barriers round all that may come down. */
function Barriers({ room: { x, y }, off_m, thin }: { room: Room; off_m: number; thin: number }) {
  return (
    <rect
      x={x[0] - off_m}
      y={-y[1] - off_m}
      width={x[1] - x[0] + 2 * off_m}
      height={y[1] - y[0] + 2 * off_m}
      rx={off_m}
      fill="none"
      stroke="var(--ink)"
      strokeWidth={thin * 3}
      strokeDasharray={`${thin * 12} ${thin * 7}`}
    >
      <title>{t`Barriers`}</title>
    </rect>
  )
}

/** Towers from the side with their stages, and from above with what each carries and the pressure to expect on its gauge. */
export function GantryView({
  machine,
  standing,
  lift,
  tables,
  assessment,
}: {
  machine: GantryMachine
  standing: Towers | null
  lift: LiftPlan | null
  tables: readonly RatingTable[]
  assessment: Pick<Assessment, 'findings'> | null
}) {
  const say = useSay()
  const { stages, stand } = machine.gantry
  const towers = standing?.towers ?? []
  const { front, rear } = stand.headers
  const at = (id: string) => towers.find((x) => x.id === id)
  const placed = [
    { id: front.left, x: 2, y: 2.2 },
    { id: front.right, x: 2, y: -2.2 },
    { id: rear.left, x: -2, y: 2.2 },
    { id: rear.right, x: -2, y: -2.2 },
  ].map(({ id, x, y }) => {
    const own = at(id)
    return { id, x_m: own ? nominal(own.x_m) : x, y_m: own ? nominal(own.y_m) : y }
  })
  const work = lift ? workIn(lift) : null
  const { load } = lift?.hung ?? { load: null }
  const stands = lift?.crew?.stands ?? []
  const room = standing && load ? gantryRoom(machine.gantry, standing, load, [0, work?.shift_m ?? 0]) : null
  const farthest_m = Math.max(0, ...stands.flatMap((s) => [Math.abs(s.x_m), Math.abs(s.y_m)])) + 0.8
  const roomEnds = stands.length > 0 && room ? [...room.x, ...room.y].map((v) => Math.abs(v) + stand.barriers_m + 0.4) : []
  const near_m = Math.max(...placed.map((p) => Math.max(Math.abs(p.x_m), Math.abs(p.y_m)))) + 0.9
  const half = Math.max(near_m, farthest_m, ...roomEnds)
  const top = (stages.at(-1)?.upTo_m ?? 6) + 0.6
  /** From the side all is drawn smaller, so that figures stay large. */
  const e = 0.62
  const width = 2 * half + 3.4
  const elevation = top * e + 1.6
  const height = elevation + 2 * half + 3.2
  const text = height / 36
  const thin = text / 14
  const up = work ? Math.max(high(work.from_m), high(work.raised_m), high(work.down_m)) : (stages[0]?.upTo_m ?? 3)
  const cg = load?.cg ?? null
  const table = tables.find((x) => x.machine === machine.id)
  const shift = cg ? Math.max(Math.abs(nominal(cg.y_m)), Math.abs(nominal(cg.y_m) + (work?.shift_m ?? 0))) : 0
  const rows = table ? rowsFor(table, shift) : undefined
  const stage = stages.find((s) => up <= s.upTo_m + 1e-9)
  const marks = placed.map((p) => {
    const f = assessment?.findings.find((x) => x.id === `rating:${p.id}`) ?? null
    const kg = f?.nominal ?? null
    const pressure = kg === null || !stage ? null : (kg * g_mps2) / stage.piston_m2 / 1000
    return {
      ...p,
      use: f?.utilisation ?? null,
      verdict: f?.verdict ?? null,
      lines:
        kg === null || f === null
          ? []
          : [
              `${say('mass', f.measured ?? kg)}${f.utilisation === null ? '' : ` · ${say('share', f.utilisation)}`}`,
              ...(pressure === null ? [] : [t`gauge ${say('pressure', pressure)}`]),
            ],
    }
  })
  const [xf, xr] = [placed[0]?.x_m ?? 2, placed[2]?.x_m ?? -2]
  const [long, tall] = [Math.min(load?.size?.length_m ?? 2.4, 2 * half), load?.size?.height_m ?? 1.4]
  const hang = up - 0.35
  const cgZ = hang + (cg ? nominal(cg.z_m) : -1)
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={t`${machine.name}, its towers ${say('length', up)} high at most, with what each of them carries`}
    >
      <g transform={`translate(${half * e + 0.4} ${top * e + 0.3})`}>
        <path d={`M${-half * e} 0H${half * e}`} stroke="var(--ink)" strokeWidth={thin * 3} />
        {stages.map((s, i) => {
          const kg = rows?.rows[i]?.ratings_kg[0] ?? null
          const here = s === stage
          return (
            <g key={s.upTo_m}>
              <path
                d={`M${-half * e} ${-s.upTo_m * e}H${half * e}`}
                stroke={here ? 'var(--ink)' : 'var(--quiet)'}
                strokeWidth={thin * (here ? 2.4 : 1.2)}
                strokeDasharray={`${thin * 8} ${thin * 6}`}
              />
              <text
                x={half * e + text * 0.5}
                y={-s.upTo_m * e + text * 0.35}
                fontSize={text}
                fontWeight={here ? 750 : 600}
                fill={here ? 'var(--ink)' : 'var(--quiet)'}
              >
                {kg === null ? say('length', s.upTo_m) : t`to ${say('length', s.upTo_m)}: ${say('mass', kg)} a tower`}
              </text>
            </g>
          )
        })}
        <g transform={`scale(${e})`}>
          {[xf, xr].map((x) => (
            <g key={x} stroke="var(--ink)" strokeWidth={thin * 3} fill="var(--sheet)">
              <rect x={x - 0.45} y={-0.25} width={0.9} height={0.25} fill="var(--edge)" />
              {stages.map((s, i) => {
                const from = i === 0 ? 0.25 : (stages[i - 1]?.upTo_m ?? 0)
                const to = Math.min(up, s.upTo_m)
                return to > from ? (
                  <rect key={s.upTo_m} x={x - 0.32 + i * 0.08} y={-to} width={0.64 - i * 0.16} height={to - from} />
                ) : null
              })}
              <rect x={x - 0.3} y={-up - 0.35} width={0.6} height={0.5} fill="var(--edge)" />
            </g>
          ))}
          {load && (
            <g stroke="var(--ink)" strokeWidth={thin * 3}>
              <rect
                x={(cg ? nominal(cg.x_m) : 0) - long / 2}
                y={-cgZ - tall / 2}
                width={long}
                height={tall}
                fill="var(--accent)"
                opacity={0.85}
              />
              <path d={`M${xf} ${-hang}V${-hang + 0.3}M${xr} ${-hang}V${-hang + 0.3}`} />
              <path d={`M${xr} ${-hang + 0.3}H${xf}`} strokeWidth={thin * 6} />
              <circle cx={cg ? nominal(cg.x_m) : 0} cy={-cgZ} r={text * 0.45} fill="var(--ink)" />
            </g>
          )}
        </g>
        <text x={half * e + text * 0.5} y={text * 0.1} fontSize={text} fontWeight="650" fill="var(--ink)">
          {standing && towers.length > 0 ? t`${say('length', xf - xr)} between headers` : t`headers not measured`}
        </text>
      </g>
      <g transform={`translate(${width / 2} ${elevation + half + 1.4})`}>
        <BearingPlan marks={marks} size_m={0.9} cg={cg} text={text}>
          {stands.length > 0 && room && <Barriers room={room} off_m={stand.barriers_m} thin={thin} />}
          <path d={`M${-half} 0H${half}`} stroke="var(--quiet)" strokeWidth={thin} strokeDasharray={`${thin * 6} ${thin * 5}`} />
          {[placed.slice(0, 2), placed.slice(2)].map(([a, b]) =>
            a && b ? (
              <path
                key={a.id}
                d={`M${a.x_m} ${-a.y_m}L${b.x_m} ${-b.y_m}`}
                stroke="var(--edge)"
                strokeWidth={0.34}
                strokeLinecap="butt"
              />
            ) : null,
          )}
        </BearingPlan>
        <StandMarks stands={stands} assessment={assessment} text={text} />
        <text x={half + text * 0.4} y={text * 0.35} fontSize={text * 0.95} fill="var(--quiet)">{t`front`}</text>
      </g>
    </svg>
  )
}
