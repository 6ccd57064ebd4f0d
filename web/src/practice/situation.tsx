import type { Going, Situation } from '@geolabe/core'
import { t } from '../language/t'

const goingWords: Record<Going, string> = {
  hoist: t`It comes up.`,
  lower: t`It goes down.`,
  right: t`It goes to your right.`,
  left: t`It goes to your left.`,
}

/** A situation in words, as it is seen. */
export function situationWords(s: Situation): string {
  const off_m = s.place.across_m - s.load.across_m
  const place = s.slack
    ? t`The load stands in its place, the rope is loose.`
    : Math.abs(off_m) <= 0.3
      ? t`The load is over its place.`
      : off_m > 0
        ? t`Its place is to the right of the load.`
        : t`Its place is to the left of the load.`
  const going = s.slack ? '' : s.going ? goingWords[s.going] : t`It hangs still.`
  const near = s.person_m !== null && Math.abs(s.person_m - s.load.across_m) <= 1.2
  const person = s.person_m === null ? '' : near ? t`Somebody is under it.` : t`Somebody walks further off.`
  const looks = s.watching ? '' : t`The operator looks elsewhere.`
  return [looks, place, going, person].filter((x) => x !== '').join(' ')
}

const arrows: Record<Going, readonly [number, number]> = { hoist: [0, -1], lower: [0, 1], right: [1, 0], left: [-1, 0] }
const head = { m: 1.1, half_m: 0.55 }

/** What whoever signals sees: the operator in the cab far off, the load on its rope, where it goes, what stands between, who walks there. */
export function SituationDrawn({ situation: s, className }: { situation: Situation; className: string }) {
  const { load, place, wall, going } = s
  const [w, h] = [1.5, 1.1]
  const [x, y] = [load.across_m, -load.height_m - h]
  const [dx, dy] = going ? arrows[going] : [0, 0]
  const [ax, ay] = [x + dx * (w / 2 + 0.4), y + h / 2 + dy * (h / 2 + 0.4)]
  return (
    <svg viewBox="-8 -9.6 16 10.4" className={className} role="img" aria-label={situationWords(s)}>
      <g strokeLinejoin="round" strokeLinecap="round">
        <g transform="translate(0 -8.6)" stroke="var(--ink)" strokeWidth="0.1">
          <path d="M-1.1 -0.7H0.7L1.1 0.1V1H-1.1Z" fill="var(--sunk)" />
          {/* Face or back of the head: whether whoever drives looks. */}
          <circle cx="0" cy="0.1" r="0.45" fill={s.watching ? 'var(--sheet)' : 'var(--ink)'} />
          {s.watching && <path d="M-0.17 0.02v0.1M0.17 0.02v0.1" strokeWidth="0.14" />}
        </g>
        <path d="M-8 0H8" stroke="var(--edge)" strokeWidth="0.14" />
        <path
          d={`M${place.across_m - 1.2} ${-place.height_m}h2.4v${place.height_m + 0.45}h-2.4Z`}
          fill="var(--accent)"
          stroke="var(--ink)"
          strokeWidth="0.1"
        />
        {wall && (
          <path d={`M${wall.across_m - 0.25} 0V${-wall.top_m}h0.5V0Z`} fill="var(--edge)" stroke="var(--ink)" strokeWidth="0.1" />
        )}
        <path
          d={s.slack ? `M${x} -7.4C${x + 1.1} -5 ${x - 1.1} ${y - 1.4} ${x} ${y}` : `M${x} -7.4V${y}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="0.12"
        />
        <rect x={x - w / 2} y={y} width={w} height={h} fill="var(--inside)" stroke="var(--ink)" strokeWidth="0.12" />
        {s.person_m !== null && (
          <g transform={`translate(${s.person_m} 0)`} stroke="var(--ink)" strokeWidth="0.1" fill="var(--outside)">
            <path d="M-0.28 0L-0.22 -1.15H0.22L0.28 0Z" />
            <circle cx="0" cy="-1.45" r="0.26" fill="var(--sheet)" />
          </g>
        )}
        {going && (
          <path
            d={`M${ax + dx * head.m} ${ay + dy * head.m}L${ax - dy * head.half_m} ${ay + dx * head.half_m}L${ax + dy * head.half_m} ${ay - dx * head.half_m}Z`}
            fill="var(--ink)"
          />
        )}
      </g>
    </svg>
  )
}
