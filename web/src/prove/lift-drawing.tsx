import {
  type ArticulatedPose,
  type Assessment,
  atSlew,
  type Crane,
  type Crew,
  type MapZone,
  nominal,
  type Place,
  type Point,
  pathOf,
  type RatingTable,
  type SetupPlan,
  straightBoom,
  supportOf,
  type Tol,
  tailIsLow,
  worstVerdict,
} from '@geolabe/core'
import { useDrag, usePinch } from '@use-gesture/react'
import { memo, type RefObject, useMemo, useRef, useState } from 'react'
import { Dial, type Lit, type Touched } from '../instruments/dial'
import { aroundFeet } from '../instruments/frame'
import type { Polar } from '../instruments/hook-point'
import { SideView } from '../instruments/side-view'
import { ZoneLegend } from '../instruments/zones'
import { t } from '../language/t'
import { dialFeet } from '../setup/dial-feet'
import { TowerSide } from '../tower/tower-side'
import { useSay } from '../units/units'
import { plainPoint, type SeenStep } from './draft'
import { FoldingView } from './folding-view'
import { SightMarks } from './sight-marks'

interface Props {
  label: string
  machine: Crane
  place: Place
  setup: SetupPlan
  tables: readonly RatingTable[]
  wind: Tol | null
  seen: SeenStep
  assessment: Assessment | null
  zones?: readonly (MapZone | null)[] | null
  lit?: Lit | null
  /** A pose that is dragged in the side view. */
  onPose?: (i: number, pose: ArticulatedPose) => void
  /** Where an operator with a remote stands. */
  posts?: Crew['posts']
  onPost?: (i: number, to: Point) => void
  /** Where everybody else stands while the load is up. */
  stands?: Crew['stands']
  onStand?: (i: number, to: Point) => void
  onMove?: (which: 'pickUp' | 'setDown', to: Polar) => void
  onTouch?: (what: Touched) => void
}

const views = [
  ['above', t`From above`],
  ['side', t`From the side`],
] as const

/** A lift from above or from the side, as large as the screen allows; its points are dragged, its outriggers touched. */
export function LiftDrawing({
  label,
  machine,
  place,
  setup,
  tables,
  wind,
  seen,
  assessment,
  zones,
  lit,
  onPose,
  posts,
  onPost,
  stands,
  onStand,
  onMove,
  onTouch,
}: Props) {
  const say = useSay()
  const [view, setView] = useState<'above' | 'side'>('above')
  const verdictOf = (id: string) =>
    worstVerdict((assessment?.findings ?? []).filter((f) => f.subject === id).map((f) => f.verdict))
  const [pickUp, setDown] = [plainPoint(seen.pickUp), plainPoint(seen.setDown)]
  const standing = useMemo(() => dialFeet(machine, setup), [machine, setup])
  // Whoever works it from the ground is on the drawing too.
  const far_m = Math.max(
    pickUp.radius_m,
    setDown.radius_m,
    ...[...(posts ?? []), ...(stands ?? [])].map((p) => Math.hypot(p.x_m, p.y_m)),
  )
  const [held, setHeld] = useState(false)
  const feet = useMemo(() => supportOf(machine, setup.standing).contacts, [machine, setup.standing])
  const fits_m = Math.min(64, Math.max(Math.min(9, aroundFeet(feet, 2.2)), Math.ceil(far_m / 2) * 2 + Math.min(3, far_m * 0.4)))
  // While a finger holds a point the drawing keeps its scale, unless the point would leave it.
  const [extent_m, setExtent] = useState(fits_m)
  if (!held && extent_m !== fits_m) setExtent(fits_m)
  if (held && far_m > extent_m * 0.98 && extent_m !== fits_m) setExtent(fits_m)
  // Two fingers, or the wheel with Ctrl: nearer or further off.
  const box = useRef<HTMLDivElement>(null)
  const [zoom, setZoom] = useState(1)
  const [aside_m, setAside] = useState<readonly [number, number]>([0, 0])
  const whole = () => {
    setZoom(1)
    setAside([0, 0])
  }
  // It reaches furthest with the boom as near level as it goes.
  const reach_m = useMemo(
    () => straightBoom(machine.boom).poseAtAngle(seen.boom_m, Math.max(0, machine.boom.minAngle_deg)).radius_m,
    [machine.boom, seen.boom_m],
  )
  const [stopped, setStopped] = useState(false)
  const { step } = seen
  const { recoil_m } = machine.hoist
  const recoil = recoil_m === undefined || step.do !== 'slew' ? undefined : { aside_m: recoil_m, arc: pathOf(step).arc }
  const bend_m = typeof step.radiusBasis === 'object' && step.radiusBasis ? step.radiusBasis.deflection_m : 0
  return (
    <div
      ref={box}
      className={zoom > 1.02 ? 'relative h-full touch-none' : 'relative h-full touch-pan-y'}
      onPointerDownCapture={() => setHeld(true)}
      onPointerUpCapture={() => {
        setHeld(false)
        setStopped(false)
      }}
      onPointerCancelCapture={() => setHeld(false)}
    >
      <Closer box={box} extent_m={extent_m} zoom={zoom} setZoom={setZoom} setAside={setAside} />
      {view === 'above' ? (
        <Dial
          machine={machine}
          label={label}
          place={place}
          position={setup.position}
          extent_m={extent_m / zoom}
          aside_m={zoom > 1.02 ? aside_m : undefined}
          outriggers={standing.map((foot) => {
            const use = assessment?.outriggers.find((l) => l.id === foot.id)
            return { ...foot, verdict: verdictOf(foot.id), note: use ? say('force', use.upper_N) : '' }
          })}
          boom={setDown}
          pickUp={pickUp}
          setDown={setDown}
          arc={step.do === 'slew' ? pathOf(step).arc : undefined}
          // What goes round behind matters to whoever stands there.
          tailSwingRadius_m={stands && tailIsLow(machine) ? machine.upper.tailSwingRadius_m : undefined}
          way={seen.way ?? undefined}
          zones={zones ?? undefined}
          lit={lit}
          reach_m={reach_m}
          onHeld={setStopped}
          onMove={onMove}
          onTouch={onTouch}
        >
          <SightMarks
            assessment={assessment}
            posts={posts}
            stands={stands}
            ends={[pickUp, setDown].map((p) => atSlew(p.radius_m, p.slew_deg))}
            recoil={recoil}
            extent_m={extent_m / zoom}
            onPost={onPost}
            onStand={onStand}
          />
        </Dial>
      ) : step.do === 'pose' ? (
        <FoldingView machine={machine} step={step} onPose={onPose} />
      ) : machine.boom.trolley ? (
        <TowerSide
          machine={machine}
          tables={tables}
          partsOfLine={setup.fitted.partsOfLine ?? null}
          radius_m={setDown.radius_m}
          hung_kg={assessment?.hookLoad_kg ?? null}
          wind_mps={wind === null ? null : nominal(wind)}
          label={t`From the side at set-down`}
        />
      ) : (
        <SideView
          machine={machine}
          boom_m={step.boom_m}
          radius_m={setDown.radius_m}
          deflection_m={bend_m}
          label={t`From the side at set-down`}
        />
      )}
      <p role="status" className="absolute inset-x-2 top-16 font-semibold text-near">
        {stopped && t`Held here: this boom at ${say('length', seen.boom_m)} reaches ${say('length', reach_m)}.`}
      </p>
      <fieldset className="absolute top-2 left-2 flex overflow-hidden rounded-lg border-2 border-ink bg-sheet text-[0.92rem]">
        <legend className="sr-only">{t`Seen`}</legend>
        {views.map(([id, name]) => (
          <button
            key={id}
            type="button"
            aria-pressed={view === id}
            onClick={() => setView(id)}
            className={`min-h-12 px-3 font-semibold ${view === id ? 'bg-ink text-paper' : ''}`}
          >
            {name}
          </button>
        ))}
      </fieldset>
      {view === 'above' && Math.abs(zoom - 1) > 0.02 && (
        <button
          type="button"
          onClick={whole}
          className="absolute top-2 right-2 min-h-12 rounded-lg border-2 border-ink bg-sheet px-3 font-semibold"
        >{t`The whole`}</button>
      )}
      {view === 'above' && zones && (
        <details className="absolute bottom-2 left-2 max-w-[calc(100%-1rem)] rounded-lg border border-line bg-sheet/95 px-3">
          <summary className="min-h-12 content-center font-semibold">{t`What the line means`}</summary>
          <p className="pb-2 text-[0.92rem] text-quiet">{t`Inside it this load may go with this set-up; the shaded ground beyond is outside. What it ends by:`}</p>
          <div className="pb-3">
            <ZoneLegend />
          </div>
          {recoil && stands && (
            <p className="pb-3 text-[0.92rem]">{t`Grey along the boom: the line of the rope. Nobody stands in it.`}</p>
          )}
        </details>
      )}
    </div>
  )
}

/** Two fingers bring it nearer; one moves it about then. Neither is listened to anew while a point is dragged. */
const Closer = memo(function Closer({
  box,
  extent_m,
  zoom,
  setZoom,
  setAside,
}: {
  box: RefObject<HTMLDivElement | null>
  extent_m: number
  zoom: number
  setZoom: (zoom: number) => void
  setAside: (change: (aside_m: readonly [number, number]) => readonly [number, number]) => void
}) {
  // The last word of a pinch comes late, when somebody may have gone back to the whole already.
  usePinch(({ offset: [scale], last }) => !last && setZoom(scale), {
    target: box,
    from: () => [zoom, 0],
    scaleBounds: { min: 0.6, max: 3 },
    eventOptions: { passive: false },
  })
  // It is moved about by its ground; what can be taken hold of is not the ground.
  useDrag(
    ({ delta: [dx, dy], event }) => {
      const wide = box.current?.clientWidth ?? 0
      if (zoom <= 1.02 || wide === 0 || (event.target as Element).closest('[role=slider], button, fieldset, details')) return
      const per = (2 * extent_m) / zoom / Math.min(wide, box.current?.clientHeight ?? wide)
      const most = extent_m - extent_m / zoom
      const within = (v: number) => Math.min(most, Math.max(-most, v))
      setAside(([x, y]) => [within(x - dx * per), within(y - dy * per)])
    },
    { target: box, pointer: { keys: false }, filterTaps: true, preventScroll: false },
  )
  return null
})
