import { type Assessment, atSlew, type Crew, type Point } from '@geolabe/core'
import { onPaper, pathOf } from '../instruments/frame'
import { HookMark, HookPoint } from '../instruments/hook-point'
import { verdictInk } from '../instruments/verdict-ink'
import { t } from '../language/t'
import { useSay } from '../units/units'
import { roleNames } from './crew-panel'

type Posts = NonNullable<Crew['posts']>
type Stands = NonNullable<Crew['stands']>
interface Arc {
  from_deg: number
  to_deg: number
}

/** The rope from whoever steadies the load to where it comes from and goes to, and how long it has to be. */
function TagLine({ from, ends, size }: { from: Point; ends: readonly Point[]; size: number }) {
  const say = useSay()
  const [x, y] = onPaper(from)
  const far_m = Math.max(...ends.map((e) => Math.hypot(e.x_m - from.x_m, e.y_m - from.y_m)))
  return (
    <g>
      <title>{t`Tag line: at least ${say('length', far_m)} of rope`}</title>
      {ends.map((e) => (
        <path
          key={`${e.x_m} ${e.y_m}`}
          d={pathOf([from, e], false)}
          fill="none"
          className="stroke-ink"
          strokeWidth={size / 10}
          strokeDasharray={`${size / 3} ${size / 4}`}
        />
      ))}
      <text x={x} y={y + size * 1.9} textAnchor="middle" fontSize={size * 0.85} className="figure fill-ink">
        {say('length', far_m)}
      </text>
    </g>
  )
}

/** Where a rope flies back to if it parts: along its line, both ways, wherever the load goes round. */
function LineOfRope({ aside_m, arc, long_m }: { aside_m: number; arc: Arc; long_m: number }) {
  const n = Math.max(2, Math.ceil(Math.abs(arc.to_deg - arc.from_deg) / 3))
  const slews = Array.from({ length: n + 1 }, (_, i) => arc.from_deg + ((arc.to_deg - arc.from_deg) * i) / n)
  const middle: Point = { x_m: 0, y_m: 0 }
  return (
    <g className="fill-ink stroke-ink" opacity={0.13}>
      <title>{t`Line of the rope: nobody stands in it`}</title>
      {[0, 180].map((turn) => (
        <path key={turn} stroke="none" d={pathOf([middle, ...slews.map((s) => atSlew(long_m, s + turn))])} />
      ))}
      {[arc.from_deg, arc.to_deg].map((s) => (
        <path key={s} fill="none" strokeWidth={2 * aside_m} d={pathOf([atSlew(long_m, s), atSlew(long_m, s + 180)], false)} />
      ))}
    </g>
  )
}

/** Where the load is out of the operator's sight, as a hatched band along its way; and where an operator with a remote stands. */
export function SightMarks({
  assessment,
  posts = [],
  stands = [],
  ends,
  recoil,
  extent_m,
  onPost,
  onStand,
}: {
  assessment: Assessment | null
  posts: Posts | undefined
  stands: Stands | undefined
  /** Where the load comes from and goes to. */
  ends: readonly Point[]
  /** How near to the line of its rope nobody stands, and where the load goes round; none: its book says nothing of it. */
  recoil?: { aside_m: number; arc: Arc } | undefined
  extent_m: number
  onStand?: ((i: number, to: { x_m: number; y_m: number }) => void) | undefined
  onPost?: ((i: number, to: Posts[number]) => void) | undefined
}) {
  const say = useSay()
  const parts = (assessment?.findings ?? []).flatMap((f) =>
    f.check === 'sight' && 'from_deg' in f.detail && f.at
      ? [{ id: f.id, verdict: f.verdict, radius_m: f.at.radius_m, from_deg: f.detail.from_deg, to_deg: f.detail.to_deg }]
      : [],
  )
  return (
    <>
      <g aria-hidden="true" fill="none">
        {parts.map(({ id, verdict, radius_m, from_deg, to_deg }) => {
          const n = Math.max(2, Math.ceil((to_deg - from_deg) / 3))
          const points = Array.from({ length: n + 1 }, (_, i) => atSlew(radius_m, from_deg + ((to_deg - from_deg) * i) / n))
          return (
            <path
              key={id}
              d={pathOf(points, false)}
              stroke={verdictInk[verdict]}
              strokeWidth={extent_m / 14}
              strokeDasharray={`${extent_m / 160} ${extent_m / 90}`}
            />
          )
        })}
      </g>
      {recoil && stands.length > 0 && <LineOfRope {...recoil} long_m={extent_m * 1.5} />}
      {stands
        .filter((s) => s.role === 'tag-line')
        .map((s) => (
          <TagLine key={`${s.x_m} ${s.y_m}`} from={s} ends={ends} size={extent_m / 26} />
        ))}
      {stands.map((s, i) => {
        const at = { radius_m: Math.hypot(s.x_m, s.y_m), slew_deg: (Math.atan2(s.y_m, s.x_m) * 180) / Math.PI }
        const mark = { letter: roleNames[s.role].slice(0, 2), at, size: extent_m / 26 }
        return onStand ? (
          <HookPoint
            // biome-ignore lint/suspicious/noArrayIndexKey: told apart by their place in the list alone
            key={i}
            {...mark}
            name={t`${roleNames[s.role]} ${i + 1}`}
            most_m={extent_m * 1.4}
            spoken={t`radius ${say('length', at.radius_m)}, slew ${say('angle', at.slew_deg)}`}
            onMove={(to) => onStand(i, atSlew(to.radius_m, to.slew_deg))}
          />
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: told apart by their place in the list alone
          <HookMark key={i} {...mark} />
        )
      })}
      {posts.map((p, i) => {
        const at = { radius_m: Math.hypot(p.x_m, p.y_m), slew_deg: (Math.atan2(p.y_m, p.x_m) * 180) / Math.PI }
        const mark = { letter: String(i + 1), at, size: extent_m / 30 }
        return onPost ? (
          <HookPoint
            // biome-ignore lint/suspicious/noArrayIndexKey: they are gone to in this order
            key={i}
            {...mark}
            name={posts.length > 1 ? t`Operator’s place ${i + 1}` : t`Operator’s place`}
            most_m={extent_m * 1.4}
            spoken={t`radius ${say('length', at.radius_m)}, slew ${say('angle', at.slew_deg)}`}
            onMove={(to) => onPost(i, atSlew(to.radius_m, to.slew_deg))}
          />
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: they are gone to in this order
          <HookMark key={i} {...mark} />
        )
      })}
    </>
  )
}
