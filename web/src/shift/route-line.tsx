import { type Shift, type Station, station } from '@geolabe/contract'
import { hasOrder, isProvable, isRaised, itemsOf, type Machine, orderOf, owedAt, preUseOf } from '@geolabe/core'
import clsx from 'clsx'
import { Link } from 'react-router'
import { t } from '../language/t'
import { stationWords } from '../language/words'

export type StationState = 'done' | 'open' | 'stopped'

/** The stations of a shift on this machine: what stands on no legs and has no boom of that kind is not proved on the dial. */
export function stationsOf(m: Machine): readonly Station[] {
  if (isProvable(m)) return station.options
  return station.options.filter((s) => s !== 'prove' && (s !== 'set-up' || hasOrder(m, 'setup')))
}

/** Whether a station's procedures have come to their goals, as far as that needs no calculator. */
function goalsReached(s: Shift, m: Machine, station: 'setup' | 'lift'): boolean {
  const { file, world } = orderOf(m, s)
  return owedAt(file, world, station, { now_ms: Date.now(), computed: () => null }).length === 0
}

const hasRaised = (m: Machine) => itemsOf(m.walkround).some(isRaised)

/** Whether the machine stands as its procedure has it; a machine without one always does. */
export const standsSetUp = (s: Shift, m: Machine) => s.setups.length > 0 || (!isProvable(m) && goalsReached(s, m, 'setup'))

/** What of a shift stands, station by station. Going back is normal. */
export function stationStates(s: Shift, m: Machine, stopped: boolean): Record<Station, StationState> {
  const lifting = stopped ? 'stopped' : 'open'
  const lifted = isProvable(m) ? s.lifts.some((l) => l.outcome) && !s.lifts.some((l) => !l.outcome) : goalsReached(s, m, 'lift')
  return {
    'sign-on': 'done',
    'walk-round': preUseOf(s).finishedAt && (preUseOf(s).raisedAt || !hasRaised(m)) ? 'done' : 'open',
    site: s.site?.fit ? 'done' : s.site ? 'stopped' : 'open',
    'set-up': standsSetUp(s, m) ? 'done' : 'open',
    prove: s.lifts.length > 0 ? 'done' : lifting,
    lift: lifted ? 'done' : lifting,
    stow: s.closedAt ? 'done' : 'open',
  }
}

/** Where the shift goes next. */
export function nextStation(s: Shift, m: Machine): Station {
  if (!preUseOf(s).finishedAt) return 'walk-round'
  if (!s.site?.fit) return 'site'
  if (!standsSetUp(s, m)) return 'set-up'
  if (hasRaised(m) && !preUseOf(s).raisedAt) return 'walk-round'
  if (!isProvable(m)) return 'lift'
  if (s.lifts.some((l) => !l.outcome)) return 'lift'
  return 'prove'
}

function Stop({ state, here }: { state: StationState; here: boolean }) {
  return (
    <svg viewBox="0 0 32 32" className="size-8" aria-hidden="true">
      {here && <circle cx="16" cy="16" r="15" fill="var(--accent)" stroke="var(--ink)" strokeWidth="2" />}
      {state === 'stopped' ? (
        <>
          <rect x="8" y="8" width="16" height="16" fill="var(--outside)" />
          <path d="m11.5 11.5 9 9m0-9-9 9" stroke="var(--on-verdict)" strokeWidth="2.4" />
        </>
      ) : state === 'done' ? (
        <circle cx="16" cy="16" r="7.5" fill={here ? 'var(--on-accent)' : 'var(--ink)'} />
      ) : (
        <circle
          cx="16"
          cy="16"
          r="7"
          fill={here ? 'none' : 'var(--paper)'}
          stroke={here ? 'var(--on-accent)' : 'var(--ink)'}
          strokeWidth="2.4"
        />
      )}
    </svg>
  )
}

const stateWords: Record<StationState, string> = { done: 'done', open: t`to come`, stopped: 'stopped' }

/** The stations of the shift as one line, always on screen. */
export function RouteLine({
  stations,
  states,
  here,
  linkTo,
}: {
  stations: readonly Station[]
  states: Record<Station, StationState>
  here: Station
  linkTo: ((s: Station) => string) | null
}) {
  const at = stations.indexOf(here)
  return (
    <nav aria-label={t`Stations of this shift`} className="min-w-0 grow">
      <ol className="mx-auto flex max-w-6xl px-2 max-sm:px-0">
        {stations.map((s, i) => {
          const inner = (
            <>
              <span className="relative z-10">
                <Stop state={states[s]} here={s === here} />
              </span>
              <span
                className={clsx(
                  'text-[0.82rem] leading-tight whitespace-nowrap',
                  s === here ? 'font-bold' : 'text-quiet',
                  'max-md:sr-only',
                )}
              >
                {stationWords[s]}
              </span>
              <span className="sr-only">{s === here ? t`here` : stateWords[states[s]]}</span>
            </>
          )
          const look = 'flex min-h-15 w-full flex-col items-center justify-center gap-0.5 rounded-lg py-1'
          return (
            <li key={s} className="relative min-w-0 grow basis-0">
              {i > 0 && (
                <span
                  className={clsx(
                    'absolute top-[1.3rem] right-1/2 left-[-50%] h-1 max-md:top-[calc(50%-2px)]',
                    i <= at ? 'bg-ink' : 'bg-line',
                  )}
                  aria-hidden="true"
                />
              )}
              {linkTo && s !== 'sign-on' ? (
                <Link to={linkTo(s)} className={look} aria-current={s === here ? 'step' : undefined}>
                  {inner}
                </Link>
              ) : (
                <span className={look}>{inner}</span>
              )}
            </li>
          )
        })}
      </ol>
    </nav>
  )
}
