import { atSlew, type Crane, type MachinePosition, type MapZone, type Place, type Point, type Verdict } from '@geolabe/core'
import { memo, type ReactNode } from 'react'
import { t } from '../language/t'
import { asButton } from '../look/as-button'
import { useSay } from '../units/units'
import { letters, onPaper, pathOf, turned } from './frame'
import { HookMark, HookPoint, type Polar } from './hook-point'
import { MachinePlan } from './machine-shape'
import { OutriggerHandle } from './outrigger-handle'
import { GroundPatterns, Surroundings } from './surroundings'
import { verdictInk } from './verdict-ink'
import { Zones } from './zones'

export interface DialOutrigger extends Point {
  id: string
  label: string
  /** Where its beam or leg comes from; null: it hangs on none. */
  from: Point | null
  /** What presses on the ground, at true size. */
  length_m: number
  width_m: number
  verdict: Verdict | null
  /** Said beside the leg: its load, or why it cannot stand there. */
  note: string
}

export type Touched = { outrigger: string } | { point: 'pickUp' | 'setDown' }
/** A place on the drawing that something said beside it is about. */
export type Lit = { outrigger: string } | { at: Polar }

export interface DialProps {
  machine: Crane
  label: string
  outriggers: readonly DialOutrigger[]
  place?: Place | undefined
  position?: MachinePosition | undefined
  extent_m: number
  /** How far the drawing is moved aside under the eye, metres on paper. */
  aside_m?: readonly [number, number] | undefined
  /** Radius that the tail sweeps; drawn where given. */
  tailSwingRadius_m?: number | undefined
  boom?: Polar | undefined
  pickUp?: Polar | undefined
  setDown?: Polar | undefined
  arc?: { from_deg: number; to_deg: number } | undefined
  /** The hook's way where it is no even arc. */
  way?: readonly Point[] | undefined
  /** Where the load may go, slew by slew, and what ends it there; null: nowhere at that slew. */
  zones?: readonly (MapZone | null)[] | undefined
  onMove?: ((which: 'pickUp' | 'setDown', p: Polar) => void) | undefined
  /** As far as a point can be dragged; omitted: as far as is drawn. */
  reach_m?: number | undefined
  /** A point is held at that, or no longer. */
  onHeld?: ((held: boolean) => void) | undefined
  /** What was touched: an outrigger, or a point of the path. */
  onTouch?: ((what: Touched) => void) | undefined
  /** What a station adds, over the path and under its points. */
  children?: ReactNode
  /** What is shown beside the drawing, so that it is found on it. */
  lit?: Lit | null | undefined
  /** Feet that can be moved: how far each is out, and where it can stand. */
  feet?:
    | {
        at: Record<string, string>
        open: Record<string, readonly string[]>
        onMove: (outrigger: string, to: string) => void
      }
    | undefined
}

// What stands still is not drawn again while a point is moved.
const Ground = memo(function Ground({
  place,
  position,
  extent_m,
}: {
  place?: Place | undefined
  position?: MachinePosition | undefined
  extent_m: number
}) {
  return (
    <>
      <GroundPatterns unit={extent_m / 22} />
      {place && position && <Surroundings place={place} position={position} thin={extent_m / 420} extent_m={extent_m} />}
    </>
  )
})
const StillZones = memo(Zones)
const StillMachine = memo(MachinePlan)

/** Distances from the slew centre. */
const Rings = memo(function Rings({ extent_m }: { extent_m: number }) {
  const say = useSay()
  const thin = extent_m / 420
  const ring = extent_m > 22 ? 10 : extent_m > 9 ? 5 : 2
  const rings = Array.from({ length: Math.floor((extent_m * 1.35) / ring) }, (_, i) => (i + 1) * ring)
  return (
    <>
      <g aria-hidden="true" fill="none" stroke="var(--edge)" strokeWidth={thin} strokeDasharray={`${thin * 2} ${thin * 4}`}>
        {rings.map((r) => (
          <circle key={r} r={r} />
        ))}
      </g>
      <g
        aria-hidden="true"
        style={letters(extent_m / 24)}
        fill="var(--quiet)"
        className="figure lettering"
        stroke="var(--paper)"
        strokeWidth={thin * 3}
        paintOrder="stroke"
      >
        {rings
          .filter((r) => r < extent_m)
          .map((r) => (
            <text key={r} x={extent_m / 60} y={r - extent_m / 90}>
              {say('length', r)}
            </text>
          ))}
      </g>
    </>
  )
})

/**
 * The plan about the slew centre, true to scale: what stands round it, the footprint with its pads, the loads on the legs,
 * where this load can go, and the path. Shared by every station; each adds to it.
 */
export function Dial(props: DialProps) {
  const { machine, outriggers, place, position, extent_m, aside_m = [0, 0], boom, pickUp, setDown, zones } = props
  const say = useSay()
  const thin = extent_m / 420
  const spoken = (p: Polar) => t`radius ${say('length', p.radius_m)}, slew ${say('angle', p.slew_deg)}`
  return (
    <svg
      viewBox={`${aside_m[0] - extent_m} ${aside_m[1] - extent_m} ${2 * extent_m} ${2 * extent_m}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper select-none roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="group"
      aria-label={props.label}
    >
      <Ground place={place} position={position} extent_m={extent_m} />
      {zones && <StillZones zones={zones} thin={thin} extent_m={extent_m} />}
      <Rings extent_m={extent_m} />
      {props.tailSwingRadius_m !== undefined && (
        <circle
          r={props.tailSwingRadius_m}
          fill="none"
          stroke="var(--outside)"
          strokeWidth={thin * 2}
          strokeDasharray={`${thin * 3} ${thin * 5}`}
          aria-hidden="true"
        />
      )}
      <Beams outriggers={outriggers} thin={thin} />
      <StillMachine machine={machine} slew_deg={boom?.slew_deg ?? 0} thin={thin * 1.6} />
      {boom && (
        <g transform={turned(boom.slew_deg)} aria-hidden="true">
          <rect
            x={-boomHalf_m(machine)}
            y={-boom.radius_m}
            width={2 * boomHalf_m(machine)}
            height={boom.radius_m + machine.boom.pivot.back_m}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth={thin * 1.8}
          />
          <path d={`M0 ${-boom.radius_m}V${machine.boom.pivot.back_m}`} stroke="var(--edge)" strokeWidth={thin} />
        </g>
      )}
      {outriggers.map((l) => (
        <LegPad key={l.id} outrigger={l} thin={thin} extent_m={extent_m} onTouch={props.feet ? undefined : props.onTouch} />
      ))}
      {props.feet &&
        (machine.outriggers ?? []).map((outrigger) => {
          const at = props.feet?.at[outrigger.id]
          return (
            at && (
              <OutriggerHandle
                key={outrigger.id}
                outrigger={outrigger}
                at={at}
                open={props.feet?.open[outrigger.id] ?? []}
                reach_m={extent_m / 10}
                onMove={(to) => props.feet?.onMove(outrigger.id, to)}
                onTouch={() => props.onTouch?.({ outrigger: outrigger.id })}
              />
            )
          )
        })}
      {pickUp && setDown && (props.arc || props.way) && (
        <Path points={props.way ?? evenWay(pickUp, setDown, props.arc)} thin={thin} />
      )}
      {props.children}
      {(['pickUp', 'setDown'] as const).map((which) => {
        const at = props[which]
        if (!at) return null
        const shown = { at, letter: which === 'pickUp' ? 'P' : 'S', size: extent_m / 24 }
        const name = which === 'pickUp' ? t`Pick-up point` : t`Set-down point`
        const move = props.onMove
        return move ? (
          <HookPoint
            key={which}
            {...shown}
            name={name}
            most_m={Math.min(extent_m * 1.4, props.reach_m ?? Infinity)}
            onHeld={props.onHeld}
            spoken={spoken(at)}
            onMove={(p) => move(which, p)}
            onTouch={() => props.onTouch?.({ point: which })}
          />
        ) : (
          <HookMark key={which} {...shown} />
        )
      })}
      {props.lit && <LitPlace lit={props.lit} outriggers={outriggers} extent_m={extent_m} />}
    </svg>
  )
}

/** A ring of the product's own colour round what is spoken of. */
function LitPlace({ lit, outriggers, extent_m }: { lit: Lit; outriggers: readonly DialOutrigger[]; extent_m: number }) {
  const own = 'outrigger' in lit ? outriggers.find((o) => o.id === lit.outrigger) : null
  const place = 'at' in lit ? atSlew(lit.at.radius_m, lit.at.slew_deg) : own
  if (!place) return null
  const [cx, cy] = onPaper(place)
  const r = own ? Math.max(own.length_m, own.width_m) * 0.75 + extent_m / 40 : extent_m / 15
  return (
    <g aria-hidden="true" fill="none" pointerEvents="none">
      <circle cx={cx} cy={cy} r={r} stroke="var(--ink)" strokeWidth={extent_m / 55} />
      <circle cx={cx} cy={cy} r={r} stroke="var(--accent)" strokeWidth={extent_m / 110} />
    </g>
  )
}

const beam = ({ from, ...foot }: DialOutrigger) => (from ? pathOf([from, foot], false) : '')
/** A small machine has slender legs. */
const wide = ({ length_m }: DialOutrigger) => Math.min(0.34, Math.max(0.14, length_m * 0.5))

function Beams({ outriggers, thin }: { outriggers: readonly DialOutrigger[]; thin: number }) {
  return (
    <g aria-hidden="true">
      {outriggers.map((l) => (
        <path key={l.id} d={beam(l)} stroke="var(--ink)" strokeWidth={wide(l)} />
      ))}
      {outriggers.map((l) => (
        <path key={l.id} d={beam(l)} stroke="var(--sunk)" strokeWidth={wide(l) - thin * 4} />
      ))}
    </g>
  )
}

function LegPad({
  outrigger,
  thin,
  extent_m,
  onTouch,
}: {
  outrigger: DialOutrigger
  thin: number
  extent_m: number
  onTouch?: DialProps['onTouch']
}) {
  const [x, y] = onPaper(outrigger)
  const colour = outrigger.verdict ? verdictInk[outrigger.verdict] : 'var(--quiet)'
  const out = Math.sign(x) || 1
  const touch = onTouch && (() => onTouch({ outrigger: outrigger.id }))
  return (
    <g
      {...(touch
        ? {
            ...asButton(`${outrigger.label} ${outrigger.note}`, touch),
            className: 'cursor-pointer outline-none focus-visible:[&>rect]:stroke-ink',
          }
        : { 'aria-hidden': true })}
    >
      <rect
        x={x - outrigger.width_m / 2}
        y={y - outrigger.length_m / 2}
        width={outrigger.width_m}
        height={outrigger.length_m}
        fill="var(--sheet)"
        stroke={colour}
        strokeWidth={thin * 4}
        strokeDasharray={outrigger.verdict === 'not-proven' ? `${thin * 6} ${thin * 5}` : undefined}
      />
      {outrigger.verdict === 'outside' && (
        <path
          d={`M${x - outrigger.width_m / 2} ${y - outrigger.length_m / 2}l${outrigger.width_m} ${outrigger.length_m}m0 ${-outrigger.length_m}l${-outrigger.width_m} ${outrigger.length_m}`}
          stroke={colour}
          strokeWidth={thin * 4}
        />
      )}
      {outrigger.verdict === 'near' && (
        <path d={`M${x} ${y - outrigger.length_m / 2}v${outrigger.length_m}`} stroke={colour} strokeWidth={thin * 4} />
      )}
      {outrigger.verdict === 'inside' && <circle cx={x} cy={y} r={outrigger.width_m / 5} fill={colour} />}
      <text
        x={x + out * (outrigger.width_m / 2 + extent_m / 70)}
        y={y}
        style={letters(extent_m / 20)}
        className="lettering"
        fontWeight="700"
        textAnchor={out > 0 ? 'start' : 'end'}
        dominantBaseline="central"
        fill="var(--ink)"
        stroke="var(--paper)"
        strokeWidth={extent_m / 110}
        paintOrder="stroke"
      >
        {outrigger.note}
      </text>
    </g>
  )
}

/** As wide as it is, and never wider than it looks from above. */
const boomHalf_m = ({ boom }: Crane) => Math.min(0.42, boom.halfWidth_m ?? 0.42)

/** Radius and slew changing together. */
function evenWay(pickUp: Polar, setDown: Polar, arc: DialProps['arc']): Point[] {
  const n = 48
  const { from_deg, to_deg } = arc ?? { from_deg: pickUp.slew_deg, to_deg: setDown.slew_deg }
  return Array.from({ length: n + 1 }, (_, i) =>
    atSlew(pickUp.radius_m + ((setDown.radius_m - pickUp.radius_m) * i) / n, from_deg + ((to_deg - from_deg) * i) / n),
  )
}

function Path({ points, thin }: { points: readonly Point[]; thin: number }) {
  const d = pathOf(points, false)
  return (
    <g aria-hidden="true" fill="none">
      <path d={d} stroke="var(--paper)" strokeWidth={thin * 9} />
      <path d={d} stroke="var(--ink)" strokeWidth={thin * 4.5} strokeDasharray={`${thin * 12} ${thin * 6}`} />
    </g>
  )
}
