import { answer, type Crane, machineFootLift, type RaisingWay, raisingWay, type SetupPlan } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import { Gripped } from '../calculators/drawings/grip'
import { type At, Box, Earth, polar, Scene, Line as Stroke, Word } from '../calculators/drawings/scene'
import { t, told } from '../language/t'
import { NumberField, SelectField } from '../look/field'
import { VerdictMark } from '../look/verdict'
import { figureOf, unitOf, usePreferences, useSay } from '../units/units'

const degrees = (v: number) => `${Math.round(v)}°`

/** A boom leaving the ground: what its pendants pull and how near each edge the machine comes, at the angle that is dragged to and all the way. */
export function RaisingSheet({ machine, plan }: { machine: Crane; plan: Pick<SetupPlan, 'standing' | 'fitted'> }) {
  const { lengths_m } = machine.boom
  const say = useSay()
  const [length, setLength] = useState(String(plan.fitted.boom_m ?? lengths_m[0]))
  const [angle_deg, setAngle] = useState(0)
  const boom_m = Number(length)
  const { standing, fitted } = plan
  const counterweight = fitted.counterweight ?? ''
  const found = useMemo(
    () => answer(() => ({ way: raisingWay(machine, standing, boom_m, counterweight) })),
    [machine, standing, boom_m, counterweight],
  )
  const refused = 'error' in found ? found.error.message : null
  const way = 'error' in found ? null : found.way
  return (
    <section aria-label={t`Raising the boom`} className="grid gap-3">
      <h2>{t`Raising the boom`}</h2>
      <SelectField
        label={t`Boom`}
        value={length}
        options={lengths_m.map((l) => ({ value: String(l), label: say('length', l) }))}
        onChange={setLength}
      />
      {refused !== null && (
        <p role="alert" className="border-l-4 border-outside pl-3 font-semibold">
          {told(refused)}
        </p>
      )}
      {refused === null && way === null && (
        <p className="border-l-4 border-unproven pl-3">
          {t`With suspended ballast its derrick mast raises it: only the maker’s plan says how. Not proven.`}
        </p>
      )}
      {way && <Way way={way} machine={machine} boom_m={boom_m} angle_deg={angle_deg} onAngle={setAngle} />}
      <FootLift machine={machine} boom_m={boom_m} />
      <p className="text-[0.95rem] text-quiet">
        {t`The maker’s raising table decides; wind, slope and the jerk of leaving the ground are not in here.`}
      </p>
    </section>
  )
}

interface WayProps {
  way: RaisingWay
  machine: Crane
  boom_m: number
  angle_deg: number
  onAngle: (to: number) => void
}

function Way({ way, machine, boom_m, angle_deg, onAngle }: WayProps) {
  const say = useSay()
  const { units } = usePreferences()
  const { limits } = way
  const here = way.angles.reduce((a, b) => (Math.abs(b.angle_deg - angle_deg) < Math.abs(a.angle_deg - angle_deg) ? b : a))
  const [force, length] = [unitOf(units, 'force'), unitOf(units, 'length')]
  const data = way.angles.map((a) => ({
    at: a.angle_deg,
    pull: a.pendant_N / force.factor,
    front: a.frontMargin_m / length.factor,
    back: a.backMargin_m / length.factor,
  }))
  return (
    <>
      <p className="flex items-center gap-2 text-lg font-bold">
        <VerdictMark verdict={way.may ? 'inside' : 'outside'} />
        {way.may ? t`Inside the limits checked, all the way up` : t`Not from this mast as it stands`}
      </p>
      {way.counterweightShort_kg > 0 && (
        <p className="font-semibold text-outside">
          {t`${say('mass', way.counterweightShort_kg)} of counterweight short: attached before the boom leaves the ground.`}
        </p>
      )}
      <Drawn way={way} machine={machine} boom_m={boom_m} here={here} onAngle={onAngle} />
      <dl className="grid grid-cols-3 gap-2">
        <Figure
          name={t`Pendants`}
          value={say('force', here.pendant_N)}
          of={t`of ${say('force', limits.pendant_N)}`}
          wrong={here.pendant_N > limits.pendant_N}
        />
        <Figure
          name={t`Front edge`}
          value={say('length', here.frontMargin_m)}
          of={t`keep ${say('length', limits.keepMargin_m)}`}
          wrong={here.frontMargin_m < limits.keepMargin_m}
        />
        <Figure
          name={t`Rear edge`}
          value={say('length', here.backMargin_m)}
          of={t`keep ${say('length', limits.keepMargin_m)}`}
          wrong={here.backMargin_m < limits.keepMargin_m}
        />
      </dl>
      <Chart
        label={t`Pull in the pendants by angle, at most ${say('force', way.greatestPendant_N)} at ${degrees(way.greatestPendantAt_deg)}; they hold ${say('force', limits.pendant_N)}`}
        data={data}
        lines={[{ key: 'pull', name: t`pendants` }]}
        limit={limits.pendant_N / force.factor}
        limitName={t`they hold`}
        isUpper
        unit={force.label}
        at={here.angle_deg}
      />
      <Chart
        label={t`Distance to the front and rear edges by angle, at least ${say('length', way.leastFrontMargin_m)} ahead and ${say('length', way.leastBackMargin_m)} behind; keep ${say('length', limits.keepMargin_m)}`}
        data={data}
        lines={[
          { key: 'front', name: t`front` },
          { key: 'back', name: t`rear` },
        ]}
        limit={limits.keepMargin_m / length.factor}
        limitName={t`keep`}
        isUpper={false}
        unit={length.label}
        at={here.angle_deg}
      />
    </>
  )
}

const Figure = ({ name, value, of, wrong }: { name: string; value: string; of: string; wrong: boolean }) => (
  <div>
    <dt className="text-quiet">{name}</dt>
    <dd>
      <strong className={`figure block text-2xl ${wrong ? 'text-outside' : ''}`}>{value}</strong>
      <span className="text-[0.95rem] text-quiet">{of}</span>
    </dd>
  </div>
)

/** The machine from its side, the boom at the angle its head is dragged to. */
function Drawn({ way, machine, boom_m, here, onAngle }: Omit<WayProps, 'angle_deg'> & { here: RaisingWay['angles'][number] }) {
  const say = useSay()
  const { pivot, raising, maxAngle_deg } = machine.boom
  const [held, setHeld] = useState(false)
  if (!raising) return null
  const foot: At = [-pivot.back_m, pivot.height_m]
  const head = polar(boom_m, here.angle_deg, foot)
  const mast: At = [raising.mast.x_m, raising.mast.height_m]
  const weight_x = Math.min(...machine.upper.counterweights.filter((c) => !c.suspended).map((c) => c.radius_m))
  const grip = {
    label: t`Boom’s angle`,
    at: head,
    value: degrees(here.angle_deg),
    to: ([x, y]: At) => ({ angle_deg: (Math.atan2(y - foot[1], x - foot[0]) * 180) / Math.PI }),
  }
  const worked = {
    grips: [grip],
    held,
    onHold: setHeld,
    onMove: (part: unknown) => {
      const angle = typeof part === 'object' && part !== null && 'angle_deg' in part ? Number(part.angle_deg) : here.angle_deg
      onAngle(Math.min(maxAngle_deg, Math.max(0, angle)))
    },
  }
  const middle = (a: At, b: At): At => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
  const [wx, wy] = middle(mast, head)
  return (
    <Gripped value={worked}>
      <Scene
        // The same box at every angle: what is dragged does not move the paper under it.
        box={[[weight_x - 2, 0], [foot[0] + boom_m, 0], mast, [foot[0], foot[1] + boom_m]]}
        label={t`Boom at ${degrees(here.angle_deg)}, pendants pulling ${say('force', here.pendant_N)}`}
      >
        <Earth from={weight_x - 8} to={foot[0] + boom_m + 4} />
        <Box at={[weight_x - 1, 1.6]} w={2} h={2.4} fill="sunk" />
        <Box at={[-4, 0]} w={8} h={1.4} />
        <Stroke at={[[-1, pivot.height_m], mast]} width={1.1} />
        <Stroke at={[foot, head]} width={1.6} />
        <Stroke at={[mast, head]} tone={here.pendant_N > way.limits.pendant_N ? 'outside' : 'near'} width={0.8} />
        <Word at={[wx, wy + 5]} bold>
          {say('force', here.pendant_N)}
        </Word>
        <Word at={[foot[0] + boom_m * 0.2, foot[1] - 4.5]} anchor="start">
          {t`${degrees(here.angle_deg)}, head ${say('length', head[1])} up`}
        </Word>
      </Scene>
    </Gripped>
  )
}

interface ChartProps {
  label: string
  data: readonly { at: number }[]
  lines: readonly { key: string; name: string }[]
  limit: number
  limitName: string
  /** The curve stays below it, not above. */
  isUpper: boolean
  unit: string
  at: number
}

/** A curve over the whole way, with its limit and where the boom is now. */
function Chart({ label, data, lines, limit, limitName, isUpper, unit, at }: ChartProps) {
  const { units } = usePreferences()
  const dashes = ['0', '7 4']
  return (
    <figure>
      <div className="h-40 w-full" role="img" aria-label={label}>
        <ResponsiveContainer width="100%" height="100%">
          <LineChart data={[...data]} margin={{ top: 10, right: 12, bottom: 4, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" strokeDasharray="2 5" />
            <XAxis
              dataKey="at"
              type="number"
              domain={['dataMin', 'dataMax']}
              stroke="var(--quiet)"
              tick={{ fill: 'var(--ink)', fontSize: 13 }}
              tickFormatter={degrees}
            />
            <YAxis
              stroke="var(--quiet)"
              width={62}
              domain={[0, (most: number) => Math.max(most, limit) * 1.06]}
              tick={{ fill: 'var(--ink)', fontSize: 13 }}
              tickFormatter={(v: number) => figureOf(units, 'length', v, v >= 20 ? 0 : 1)}
            />
            <ReferenceLine
              y={limit}
              stroke="var(--outside)"
              strokeWidth={2}
              strokeDasharray="7 4"
              label={{
                value: limitName,
                position: isUpper ? 'insideTopRight' : 'insideBottomRight',
                fill: 'var(--outside)',
                fontSize: 13,
                fontWeight: 700,
              }}
            />
            <ReferenceLine x={at} stroke="var(--ink)" strokeWidth={1.5} />
            {lines.map((l, i) => (
              <Line
                key={l.key}
                dataKey={l.key}
                stroke="var(--ink)"
                strokeWidth={2.5}
                strokeDasharray={dashes[i] ?? '0'}
                dot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="flex flex-wrap gap-x-4 text-[0.92rem] text-quiet">
        {lines.map((l, i) => (
          <span key={l.key}>
            <svg width="30" height="8" aria-hidden="true" className="mr-1 inline">
              <line x1="0" y1="4" x2="30" y2="4" stroke="var(--ink)" strokeWidth="2.5" strokeDasharray={dashes[i] ?? '0'} />
            </svg>
            {l.name}, {unit}
          </span>
        ))}
      </figcaption>
    </figure>
  )
}

/** Before it is pinned: its foot lifted to the hinge, the head on the ground. */
function FootLift({ machine, boom_m }: { machine: Crane; boom_m: number }) {
  const say = useSay()
  const [sling_m, setSling] = useState<number | null>(1.2)
  const found = sling_m === null ? null : answer(() => machineFootLift(machine, boom_m, sling_m))
  return (
    <div className="grid gap-2 border-t border-line pt-3">
      <h3>{t`Foot to its hinge, ${say('length', machine.boom.pivot.height_m)} up`}</h3>
      <NumberField label={t`Sling from the foot`} quantity="length" value={sling_m} onChange={setSling} least={0} />
      {found &&
        ('error' in found ? (
          <p role="alert" className="border-l-4 border-outside pl-3 font-semibold">
            {told(found.error.message)}
          </p>
        ) : (
          <p>
            {t`Sling carries ${say('force', found.lift_N)}, head ${say('force', found.head_N)}. Mast’s tip ${say('length', found.mastTip_m)} ahead of the slew centre. As it rises foot and head come ${say('length', found.draws_m)} nearer to each other.`}
          </p>
        ))}
    </div>
  )
}
