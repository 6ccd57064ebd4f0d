import type { MachineFile } from '@geolabe/contract'
import { type ControlPlace, type ControlWay, controlsAgainst, type DoneBy, type Machine, type ShownControl } from '@geolabe/core'
import clsx from 'clsx'
import { onPaper } from '../instruments/frame'
import { MachinePlan } from '../instruments/machine-shape'
import { rich } from '../language/rich'
import { plural, t, told } from '../language/t'
import { controlWayWords, returningWords, roleWords } from '../language/words'
import { Sheet } from '../look/page'

/** Where on a device's own square a way stands: as the hand goes. */
const spots: Partial<Record<ControlWay, string>> = {
  forward: 'col-span-3',
  up: 'col-span-3',
  left: 'col-start-1 row-start-2 text-left',
  right: 'col-start-3 row-start-2 text-right',
  back: 'col-span-3 row-start-3',
  down: 'col-span-3 row-start-3',
}
const arrows: Partial<Record<ControlWay, string>> = { forward: '↑', up: '↑', back: '↓', down: '↓', left: '←', right: '→' }
const letterOf = (i: number) => String.fromCharCode(65 + i)
const doneBy = (by: DoneBy) =>
  [told(by.device), ...(by.way ? [controlWayWords[by.way]] : []), ...(by.with ? [told(by.with)] : [])].join(', ')

/** The map of this machine's controls on its outline, what differs from the machine last driven marked; and what each stop kills. */
export function Controls({ file }: { file: MachineFile }) {
  const { controls, stops } = file.definition
  if (controls.does.length === 0) return null
  const last = file.lastDriven && file.lastDriven.controls.does.length > 0 ? file.lastDriven : null
  const shown = controlsAgainst(controls, last?.controls ?? null)
  return (
    <div className="mt-4 grid gap-4 pb-4">
      <Sheet title={t`Controls of this machine`}>
        <div className="grid items-start gap-x-6 gap-y-3 md:grid-cols-[minmax(0,22rem)_1fr]">
          <PlacePlan machine={file.definition} />
          <div>
            {last && <Compared shown={shown} last={last.name} />}
            <p className="text-quiet">{t`What is not marked springs back when it is let go. What stands on the machine itself counts.`}</p>
          </div>
        </div>
        {controls.places.map((place, i) => (
          <PlaceControls
            key={place.id}
            letter={letterOf(i)}
            place={place}
            shown={shown.filter((c) => c.device.place === place.id)}
            last={last?.name ?? ''}
          />
        ))}
      </Sheet>
      {stops.length > 0 && (
        <Sheet title={t`Its stops`}>
          <ul className="grid gap-2">
            {stops.map((s) => (
              <li
                key={s.label}
                className="border-l-4 border-outside pl-3"
              >{rich`${<span className="font-semibold">{s.label}</span>} kills ${s.kills.toLowerCase()}. ${<span className="text-quiet">{t`To go on: ${s.reset.toLowerCase()}.`}</span>}`}</li>
            ))}
          </ul>
        </Sheet>
      )}
    </div>
  )
}

/** What to beware of by the machine driven before: first what is the other way round. */
function Compared({ shown, last }: { shown: readonly ShownControl[]; last: string }) {
  const reversed = shown.filter((c) => c.reversed).length
  const differ = shown.filter((c) => c.was).length
  return (
    <p className="mb-2">
      {reversed > 0 && (
        <strong className="block text-lg">
          {plural(
            reversed,
            {
              one: '# is the other way round than on {1}, which you drove before.',
              other: '# are the other way round than on {1}, which you drove before.',
            },
            last,
          )}
        </strong>
      )}
      {!shown.some((c) => !c.fresh)
        ? t`Nothing here is as on ${last}, which you drove before. Read it all.`
        : reversed > 0
          ? t`${differ} differ in all.`
          : differ > 0
            ? t`${differ} differ from ${last}, which you drove before.`
            : t`What both have is alike on ${last}, which you drove before.`}
    </p>
  )
}

/** The machine from above with the places of its controls; what is carried or hangs has none. */
function PlacePlan({ machine }: { machine: Machine }) {
  const { places } = machine.controls
  const fixed = places.flatMap((p) => (p.at ? [p.at] : []))
  const points = [...machine.outline.plan.flatMap((p) => p.points), ...fixed].map(([x_m, y_m]) => onPaper({ x_m, y_m }))
  // Lengthways across the screen.
  const [xs, ys] = [points.map((p) => -p[1]), points.map((p) => p[0])]
  const [left, right, top, low] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const u = Math.max(right - left, 1.8 * (low - top)) / 16
  return (
    <svg
      viewBox={[left - 1.2 * u, top - 1.2 * u, right - left + 2.4 * u, low - top + 2.4 * u].join(' ')}
      className="block max-h-52 w-full rounded-xl border border-line bg-paper"
      role="img"
      aria-label={t`${machine.name} from above, with the places of its controls`}
    >
      <g transform="rotate(90)">
        <MachinePlan machine={machine} slew_deg={0} thin={0.04 * u} />
      </g>
      {places.map((p, i) => {
        if (!p.at) return null
        const [px, py] = onPaper({ x_m: p.at[0], y_m: p.at[1] })
        return (
          <g key={p.id}>
            <circle cx={-py} cy={px} r={0.85 * u} fill="var(--accent)" stroke="var(--ink)" strokeWidth={0.12 * u} />
            <text
              x={-py}
              y={px}
              fontSize={u}
              fontWeight="750"
              textAnchor="middle"
              dominantBaseline="central"
              fill="var(--on-accent)"
            >
              {letterOf(i)}
            </text>
          </g>
        )
      })}
    </svg>
  )
}

/** What stands at one place, in the order in which it stands there. */
function PlaceControls({
  letter,
  place,
  shown,
  last,
}: {
  letter: string
  place: ControlPlace
  shown: readonly ShownControl[]
  last: string
}) {
  const devices = [...new Map(shown.map((c) => [c.device.id, c.device])).values()].sort((a, b) => a.stands - b.stands)
  return (
    <section className="mt-4 border-t border-line pt-3" aria-label={place.label}>
      <h3 className="mb-2 flex items-center gap-2 text-lg font-semibold">
        <span className="grid size-7 place-items-center rounded-full bg-accent text-base text-on-accent" aria-hidden="true">
          {letter}
        </span>
        {told(place.label)}
        {!place.at && <span className="text-base font-normal text-quiet">{t`not fixed to the machine`}</span>}
      </h3>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(15rem,100%),1fr))] gap-3">
        {devices.map((d) => (
          <DeviceSquare key={d.id} own={shown.filter((c) => c.device.id === d.id)} last={last} />
        ))}
      </ul>
    </section>
  )
}

/** One lever, pedal, switch, lamp or setting: its ways as the hand goes, and below what else is to be known. */
function DeviceSquare({ own, last }: { own: readonly ShownControl[]; last: string }) {
  const device = own[0]?.device
  if (!device) return null
  const pushed = own.filter((c) => c.way && spots[c.way] && !(c.with && own.some((o) => o !== c && o.way === c.way)))
  const others = own.filter((c) => !pushed.includes(c))
  const differs = own.some((c) => c.was)
  // What all its ways ask for is said once.
  const always = own.length > 1 && own.every((c) => c.with === own[0]?.with) ? own[0]?.with : undefined
  const besides = (c: ShownControl) => (c.with && c.with !== always ? told(c.with) : null)
  return (
    <li
      className={clsx('grid content-start gap-1 rounded-xl border-2 bg-sheet p-2.5', differs ? 'border-accent' : 'border-line')}
    >
      <p className="leading-tight font-semibold">{told(device.label)}</p>
      {pushed.length > 0 && (
        <div className="grid grid-cols-[1fr_auto_1fr] gap-x-2 gap-y-1 rounded-lg bg-sunk px-2 py-1.5 text-center leading-tight">
          {pushed.map((c) => (
            <p key={c.does} className={clsx(c.way && spots[c.way], c.reversed && 'font-bold')}>
              <span aria-hidden="true">{c.way && arrows[c.way]} </span>
              <span className="sr-only">{c.way && controlWayWords[c.way]}: </span>
              {told(c.does)}
              {besides(c) && <span className="block text-[0.88rem] text-quiet">{besides(c)}</span>}
            </p>
          ))}
          <span
            aria-hidden="true"
            className="col-start-2 row-start-2 size-5 self-center rounded-full border-2 border-ink bg-accent"
          />
        </div>
      )}
      {always && <p className="text-[0.92rem] text-quiet">{told(always)}</p>}
      {others.map((c) => (
        <p key={c.does} className="leading-tight">
          {told(c.does)}
          {(c.way || besides(c)) && (
            <span className="text-quiet">
              {`: ${[...(c.way ? [controlWayWords[c.way]] : []), ...(besides(c) ? [besides(c)] : [])].join(', ')}`}
            </span>
          )}
        </p>
      ))}
      {device.returns && device.returns !== 'springs' && (
        <p className="text-[0.92rem] text-quiet">{returningWords[device.returns]}</p>
      )}
      {device.setBy && (
        <p className="text-[0.92rem] font-semibold">{t`Changed by: ${device.setBy.map((r) => roleWords[r]).join(', ')}`}</p>
      )}
      {own
        .filter((c) => c.was)
        .map((c) => (
          <p key={c.does} className="border-l-4 border-accent pl-2 text-[0.92rem] leading-tight">
            {c.reversed && <strong className="block">{t`The other way round`}</strong>}
            {t`${told(c.does)} on ${last}: ${c.was ? doneBy(c.was) : ''}`}
          </p>
        ))}
    </li>
  )
}
