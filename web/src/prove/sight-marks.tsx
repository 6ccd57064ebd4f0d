import { type Assessment, atSlew, type Crew } from '@geolabe/core'
import { pathOf } from '../instruments/frame'
import { HookMark, HookPoint } from '../instruments/hook-point'
import { verdictInk } from '../instruments/verdict-ink'
import { t } from '../language/t'
import { useSay } from '../units/units'

type Posts = NonNullable<Crew['posts']>

/** Where the load is out of the operator's sight, as a hatched band along its way; and where an operator with a remote stands. */
export function SightMarks({
  assessment,
  posts = [],
  extent_m,
  onPost,
}: {
  assessment: Assessment | null
  posts: Posts | undefined
  extent_m: number
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
