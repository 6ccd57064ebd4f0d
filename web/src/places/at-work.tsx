import type { AtWorkPage } from '@geolabe/contract'
import type { Meeting, Place, Space } from '@geolabe/core'
import { useQuery } from '@tanstack/react-query'
import clsx from 'clsx'
import { useState } from 'react'
import { get } from '../api/client'
import { type OnPlan, PlacePlan, usePlan } from '../instruments/place-plan'
import { verdictInk } from '../instruments/verdict-ink'
import { t } from '../language/t'
import { Loaded } from '../look/page'
import { VerdictMark, verdictTone } from '../look/verdict'
import { useSay } from '../units/units'
import { partWords } from './words'

const useAtWork = (place: string) =>
  useQuery({ queryKey: ['at-work', place], queryFn: () => get<AtWorkPage>(`/places/${place}/at-work`), refetchInterval: 30_000 })

/** Which pair of machines is looked at; shared by the drawing and the list. */
export function usePair() {
  return useState<number | null>(null)
}

export function AtWorkMap({ place, pair }: { place: Place; pair: number | null }) {
  const page = useAtWork(place.id).data
  const meeting = pair === null ? undefined : page?.meetings[pair]
  const on = usePlan(place)
  const seen = (id: string) => meeting === undefined || meeting.a === id || meeting.b === id
  return (
    <PlacePlan place={place} on={on} label={t`${place.name} from above: what its machines sweep`}>
      <g pointerEvents="none">
        {page?.machines.map((m) => (
          <g key={m.id} opacity={seen(m.id) ? 1 : 0.15}>
            <Swept spaces={m.spaces} on={on} />
            <Name name={m.name} spaces={m.spaces} on={on} />
          </g>
        ))}
        {page?.meetings.map((x, i) => (pair === null || pair === i) && <Near key={`${x.a} ${x.b}`} meeting={x} on={on} />)}
      </g>
    </PlacePlan>
  )
}

const inks: Record<Space['part'], string> = {
  body: 'var(--ink)',
  boom: 'var(--accent)',
  load: 'var(--water)',
  tail: 'var(--near)',
  route: 'var(--water)',
}

/** All that one machine takes up, part by part; what overlaps is drawn once. */
function Swept({ spaces, on }: { spaces: readonly Space[]; on: OnPlan }) {
  const groups = new Map<string, Space[]>()
  for (const s of spaces.filter((x) => x.when === 'way' || x.when === 'always' || x.part === 'body')) {
    const key = `${s.part} ${s.radius_m.toFixed(2)} ${s.outline.closed}`
    groups.set(key, [...(groups.get(key) ?? []), s])
  }
  const order: Space['part'][] = ['load', 'tail', 'route', 'boom', 'body']
  const rows = [...groups.values()].sort((a, b) => order.indexOf(a[0]?.part ?? 'body') - order.indexOf(b[0]?.part ?? 'body'))
  return rows.map((own) => {
    const [first] = own
    if (!first) return null
    const d = own
      .map((s) =>
        on.path(
          s.outline.points.map((p) => [p.x_m, p.y_m] as const),
          s.outline.closed,
        ),
      )
      .join('')
    const { part, radius_m, outline } = first
    return outline.closed ? (
      <path key={d.slice(0, 60)} d={d} fill="var(--sunk)" stroke="var(--ink)" strokeWidth={on.thin * 2.5} />
    ) : (
      <path
        key={`${part}${radius_m}`}
        d={d}
        fill="none"
        stroke={inks[part]}
        strokeWidth={Math.max(2 * radius_m, on.thin * 2)}
        strokeLinecap="round"
        opacity={part === 'boom' ? 0.75 : 0.5}
      />
    )
  })
}

function Name({ name, spaces, on }: { name: string; spaces: readonly Space[]; on: OnPlan }) {
  const body = spaces.filter((s) => s.part === 'body').flatMap((s) => s.outline.points)
  if (body.length === 0) return null
  const [x, y] = on.paper([body.reduce((s, p) => s + p.x_m, 0) / body.length, body.reduce((s, p) => s + p.y_m, 0) / body.length])
  return (
    <text
      x={x}
      y={y}
      fontSize={on.half_m / 18}
      fontWeight="750"
      textAnchor="middle"
      dominantBaseline="central"
      fill="var(--ink)"
      stroke="var(--sheet)"
      strokeWidth={on.half_m / 110}
      paintOrder="stroke"
    >
      {name}
    </text>
  )
}

/** Where two of them come nearest. */
function Near({ meeting, on }: { meeting: Meeting; on: OnPlan }) {
  if (!meeting.at || meeting.verdict === 'inside') return null
  const [x, y] = on.paper([meeting.at.x_m, meeting.at.y_m])
  return <circle cx={x} cy={y} r={on.half_m / 18} fill="none" stroke={verdictInk[meeting.verdict]} strokeWidth={on.thin * 8} />
}

const unknownWords = {
  'no-lift': t`no lift is proved`,
  'not-reached': t`its boom does not get where its lift goes`,
  'no-route': t`its way is not drawn`,
  'not-worked-out': t`what it takes up on its way is not worked out`,
  'no-load-size': t`its load’s size is not known`,
} as const

export function AtWorkSheet({ place, pair, onPair }: { place: Place; pair: number | null; onPair: (i: number | null) => void }) {
  const page = useAtWork(place.id)
  const say = useSay()
  return (
    <Loaded query={page}>
      {({ machines, meetings }) => {
        const name = (id: string) => machines.find((m) => m.id === id)?.name ?? id
        if (machines.length === 0) return <p>{t`Nobody has a machine here now.`}</p>
        return (
          <div className="grid gap-3">
            <ul className="grid gap-1.5" aria-label={t`Machines here`}>
              {machines.map((m) => (
                <li key={m.id} className="rounded-lg border border-line px-3 py-2">
                  <span className="font-bold">{m.name}</span> <span className="text-quiet">{m.operator}</span>
                  <span className="block text-[0.92rem]">
                    {m.lift ?? (m.setUp ? t`Set up; no lift is proved yet.` : t`Not set up yet.`)}
                  </span>
                </li>
              ))}
            </ul>
            {meetings.length === 0 ? (
              <p className="text-quiet">{t`Two machines that are set up here are compared: what they sweep, and who waits.`}</p>
            ) : (
              <ul className="grid gap-1.5" aria-label={t`Pairs of machines`}>
                {meetings.map((x, i) => (
                  <li key={`${x.a} ${x.b}`}>
                    <button
                      type="button"
                      aria-pressed={pair === i}
                      onClick={() => onPair(pair === i ? null : i)}
                      className={clsx(
                        'w-full rounded-lg border-2 px-3 py-2 text-left',
                        verdictTone[x.verdict].border,
                        pair === i && 'bg-sunk',
                      )}
                    >
                      <span className={clsx('flex items-center gap-2 font-bold', verdictTone[x.verdict].text)}>
                        <VerdictMark verdict={x.verdict} size={18} />
                        {t`${name(x.a)} and ${name(x.b)}`}
                        {x.gap_m !== null && <span className="figure ml-auto">{say('length', x.gap_m)}</span>}
                      </span>
                      {x.verdict === 'inside' && <span className="block">{t`Both may work at once, as they are proved.`}</span>}
                      {x.verdict === 'outside' && x.between && (
                        <span className="block">
                          {x.gap_m === 0
                            ? t`${name(x.a)}’s ${partWords[x.between.a]} and ${name(x.b)}’s ${partWords[x.between.b]} would meet.`
                            : t`${name(x.a)}’s ${partWords[x.between.a]} and ${name(x.b)}’s ${partWords[x.between.b]} come too near.`}
                        </span>
                      )}
                      {x.unknown.map((u) => (
                        <span key={u.who} className="block text-quiet">{t`${name(u.who)}: ${unknownWords[u.what]}.`}</span>
                      ))}
                      {x.waiting.map((w) => (
                        <span key={`${w.waits}${w.at}`} className="block font-semibold">
                          {w.at === 'start'
                            ? t`${name(w.waits)} waits with its load at P while ${name(w.works)} works.`
                            : t`${name(w.waits)} waits with its load at S while ${name(w.works)} works.`}
                        </span>
                      ))}
                      {x.verdict === 'outside' && x.unknown.length === 0 && x.waiting.length === 0 && (
                        <span className="block font-semibold">{t`Neither can wait with its load up: one stows, or stands elsewhere.`}</span>
                      )}
                    </button>
                  </li>
                ))}
              </ul>
            )}
            <p className="text-quiet">{t`Swept whatever the order in which they move. Somebody on the ground says who goes; anyone’s stop is a stop.`}</p>
          </div>
        )
      }}
    </Loaded>
  )
}
