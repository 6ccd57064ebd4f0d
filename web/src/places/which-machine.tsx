import type { MachineChoice, MachineChoices, PositionChoices } from '@geolabe/contract'
import { byMargin, byVerdict, byWork, type Place, type Proved, type Way } from '@geolabe/core'
import clsx from 'clsx'
import { Ban } from 'lucide-react'
import { type ReactNode, useRef, useState } from 'react'
import { call } from '../api/client'
import { useDraft } from '../api/draft'
import { useMachine } from '../api/queries'
import { DragPoint } from '../instruments/drag-point'
import { MachinePlan } from '../instruments/machine-shape'
import { fine, type OnPlan, PlacePlan, usePlan } from '../instruments/place-plan'
import { PointMark } from '../instruments/point-mark'
import { findingWords, notCheckedWords } from '../language/finding-words'
import { t, told } from '../language/t'
import { verdictWords } from '../language/words'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField, SelectField } from '../look/field'
import { Refused } from '../look/page'
import { Tick } from '../look/tick'
import { VerdictMark, verdictTone } from '../look/verdict'
import { LoadFields } from '../prove/load-choice'
import { RiggingFields } from '../prove/rigging-fields'
import { SizeFields } from '../prove/room'
import { conditionsOf, firstWanted, isWanted, nearOf, type WantedDraft, wantedKey, wantedOf } from '../prove/wanted'
import { useSay } from '../units/units'
import { assumedWords, effortWords, unableWords } from './words'

/** What was answered, for the lift as it was asked. */
interface Answered {
  answers: MachineChoice[]
  shown: string | null
  positions: { machine: string; found: PositionChoices['positions'] } | null
  stand: number
}

export function useWhichMachine(place: Place) {
  const [draft, setDraft] = useDraft<WantedDraft>(wantedKey(place.id), () => firstWanted(place), isWanted)
  const [answered, setAnswered] = useState<Answered | null>(null)
  const [busy, setBusy] = useState<'yard' | 'stands' | null>(null)
  const [error, setError] = useState<unknown>(null)
  const change = (to: Partial<WantedDraft>) => {
    setDraft((d) => ({ ...d, ...to }))
    // An answer to another question is none; stands that were found are for where it was wanted.
    if ('near' in to) setAnswered((a) => a && { ...a, positions: null, stand: 0 })
    else if (!('order' in to)) setAnswered(null)
  }
  const asked = { wanted: wantedOf(draft), conditions: conditionsOf(draft) }
  // What was asked last: an answer that comes to anything else is let go.
  const question = useRef('')
  question.current = JSON.stringify([asked, draft.near])
  const doing = async (what: 'yard' | 'stands', work: () => Promise<void>) => {
    setBusy(what)
    setError(null)
    try {
      await work()
    } catch (e) {
      setError(e)
    } finally {
      setBusy(null)
    }
  }
  const ask = () =>
    doing('yard', async () => {
      const before = question.current
      const { answers } = await call<MachineChoices>({ method: 'POST', path: `/places/${place.id}/which-machine`, body: asked })
      if (question.current !== before) return
      const first = inOrder(answers, draft.order)[0]
      setAnswered({ answers, shown: first?.best ? first.machine.id : null, positions: null, stand: 0 })
    })
  const lookFor = (machine: string, near: { x_m: number; y_m: number }) =>
    doing('stands', async () => {
      const before = question.current
      const body = { ...asked, machine, near }
      const { positions } = await call<PositionChoices>({ method: 'POST', path: `/places/${place.id}/which-position`, body })
      if (question.current === before)
        setAnswered((a) => a && { ...a, shown: machine, positions: { machine, found: positions }, stand: 0 })
    })
  return { draft, change, answered, setAnswered, ask, lookFor, busy, error }
}
export type Which = ReturnType<typeof useWhichMachine>

/** The best first; what nobody may take comes after what is free. */
function inOrder(answers: readonly MachineChoice[], order: WantedDraft['order']): MachineChoice[] {
  const by = order === 'margin' ? byMargin : byWork
  const barred = (a: MachineChoice) => Number(a.bars.length > 0)
  return [...answers].sort((a, b) =>
    a.best && b.best
      ? byVerdict(a.best, b.best) || barred(a) - barred(b) || by(a.best, b.best)
      : Number(a.best === null) - Number(b.best === null) || a.machine.name.localeCompare(b.machine.name),
  )
}

/** The ways that are shown of a machine: from the stands that were looked for, else from the marked ones. */
function waysOf({ answered }: Which): Proved[] {
  const one = answered?.answers.find((a) => a.machine.id === answered.shown)
  if (!answered || !one) return []
  if (answered.positions?.machine === one.machine.id) return answered.positions.found
  return one.best ? [one.best, ...one.elsewhere] : []
}

export function WhichMap({ place, which }: { place: Place; which: Which }) {
  const { draft, change, answered } = which
  const shown = waysOf(which)[answered?.stand ?? 0]
  const on = usePlan(place)
  return (
    <PlacePlan
      place={place}
      on={on}
      label={t`${place.name} from above: where the load is, and where it goes`}
      onTap={([x, y]) => change({ near: { x_m: fine(x), y_m: fine(y) } })}
    >
      {draft.near && <Wanted at={on.paper([draft.near.x_m, draft.near.y_m])} on={on} />}
      {shown && answered?.shown && <Standing machine={answered.shown} way={shown.way} on={on} />}
      {!shown && (
        <path
          d={on.path([
            [draft.from.x_m, draft.from.y_m],
            [draft.to.x_m, draft.to.y_m],
          ])}
          stroke="var(--ink)"
          strokeWidth={on.thin * 4}
          strokeDasharray={`${on.thin * 10} ${on.thin * 8}`}
        />
      )}
      {(['from', 'to'] as const).map((end) => (
        <DragPoint
          key={end}
          on={on}
          name={end === 'from' ? t`P, where the load is` : t`S, where it goes`}
          at={[draft[end].x_m, draft[end].y_m]}
          onMove={([x_m, y_m]) => change({ [end]: { ...draft[end], x_m: fine(x_m), y_m: fine(y_m) } })}
        >
          {(x, y) => <PointMark letter={end === 'from' ? 'P' : 'S'} x={x} y={y} size={on.half_m / 24} />}
        </DragPoint>
      ))}
    </PlacePlan>
  )
}

/** Where a machine is wanted: touched on the plan. */
const Wanted = ({ at: [x, y], on }: { at: [number, number]; on: OnPlan }) => (
  <g pointerEvents="none" fill="none" stroke="var(--ink)" strokeWidth={on.thin * 4}>
    <circle cx={x} cy={y} r={on.half_m / 26} strokeDasharray={`${on.thin * 7} ${on.thin * 6}`} />
    <path d={`M${x - on.half_m / 40} ${y}h${on.half_m / 20}M${x} ${y - on.half_m / 40}v${on.half_m / 20}`} />
  </g>
)

/** A machine where it would stand, and the way that the load would go. */
function Standing({ machine, way, on }: { machine: string; way: Way; on: OnPlan }): ReactNode {
  const file = useMachine(machine).data
  const { position } = way.setup
  const [step] = way.lift.steps
  const drive = way.lift.steps.find((s) => s.do === 'drive')
  const slew = step?.do === 'slew' ? step : null
  const ends = slew ? [slew.pickUp, slew.setDown] : []
  const radii = ends.map((e) => (typeof e.radius_m === 'number' ? e.radius_m : e.radius_m.value))
  return (
    <g pointerEvents="none">
      {drive?.do === 'drive' && drive.route && (
        <path
          d={on.path(drive.route)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={on.thin * 6}
          strokeLinejoin="round"
          strokeDasharray={`${on.thin * 14} ${on.thin * 8}`}
        />
      )}
      <g transform={on.frame(position)}>
        {slew && radii.length === 2 && (
          <Arc
            from={slew.pickUp.slew_deg}
            to={slew.setDown.slew_deg}
            way={slew.slewDirection}
            radii={[radii[0] ?? 0, radii[1] ?? 0]}
            thin={on.thin}
          />
        )}
        {file && <MachinePlan machine={file.definition} slew_deg={slew?.pickUp.slew_deg ?? 0} thin={on.thin * 1.5} />}
      </g>
    </g>
  )
}

/** How the head goes round, from one radius to the other. */
function Arc({
  from,
  to,
  way,
  radii: [a, b],
  thin,
}: {
  from: number
  to: number
  way: 'anticlockwise' | 'clockwise'
  radii: [number, number]
  thin: number
}) {
  const ahead = (((to - from) % 360) + 360) % 360
  const turned = way === 'anticlockwise' ? ahead : ahead - 360
  const points = Array.from({ length: 41 }, (_, i) => {
    const t01 = i / 40
    const s = ((from + turned * t01) * Math.PI) / 180
    const r = a + (b - a) * t01
    return `${i === 0 ? 'M' : 'L'}${(-r * Math.sin(s)).toFixed(2)} ${(-r * Math.cos(s)).toFixed(2)}`
  })
  return (
    <>
      <path d={points.join('')} fill="none" stroke="var(--paper)" strokeWidth={thin * 12} />
      <path
        d={points.join('')}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={thin * 5}
        strokeDasharray={`${thin * 14} ${thin * 8}`}
      />
    </>
  )
}

/** What is lifted, from where to where, over what, in what wind. */
export function WantedSheet({ place, which }: { place: Place; which: Which }) {
  const { draft, change } = which
  const { load, rigging } = draft.hung
  const hung = (to: Partial<WantedDraft['hung']>) => change({ hung: { ...draft.hung, ...to } })
  const set = (to: Partial<typeof load>) => hung({ load: { ...load, ...to } })
  return (
    <div className="grid gap-3">
      <LoadFields place={place} load={load} onLoad={(l) => hung({ load: l })} />
      {(['from', 'to'] as const).map((end) => (
        <fieldset key={end} className="grid grid-cols-3 gap-2">
          <legend className="mb-1 font-semibold">{end === 'from' ? t`P, where it is` : t`S, where it goes`}</legend>
          <NumberField
            label="x"
            quantity="length"
            value={draft[end].x_m}
            onChange={(v) => v !== null && change({ [end]: { ...draft[end], x_m: v } })}
          />
          <NumberField
            label="y"
            quantity="length"
            value={draft[end].y_m}
            onChange={(v) => v !== null && change({ [end]: { ...draft[end], y_m: v } })}
          />
          <NumberField
            label={t`Height`}
            quantity="length"
            least={0}
            value={draft[end].height_m}
            onChange={(v) => v !== null && change({ [end]: { ...draft[end], height_m: v } })}
          />
        </fieldset>
      ))}
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label={t`Carried over, its top`}
          quantity="length"
          least={0}
          value={draft.over_m}
          onChange={(v) => v !== null && change({ over_m: v })}
        />
        <NumberField
          label={t`From the hook to the load`}
          quantity="length"
          least={0}
          value={typeof draft.hung.rigging_height_m === 'number' ? draft.hung.rigging_height_m : null}
          onChange={(v) => hung({ rigging_height_m: v ?? undefined })}
        />
      </div>
      <Tick checked={draft.roofShut} onChange={(roofShut) => change({ roofShut })}>{t`Under a roof, doors shut`}</Tick>
      {!draft.roofShut && (
        <NumberField
          label={t`Wind, gust expected at the load`}
          quantity="speed"
          least={0}
          value={draft.wind_mps}
          onChange={(wind_mps) => change({ wind_mps })}
        />
      )}
      <SizeFields size={load.size} onChange={(size) => set({ size })} />
      <RiggingFields rigging={rigging} onChange={(to) => hung({ rigging: to })} />
      <p className="text-quiet">{t`Whoever takes a machine proves the lift again, with what is found and measured there.`}</p>
    </div>
  )
}

const share = (margin: number) => `${Math.round(margin * 100)} %`

/** Every machine of the yard, the best first; touched, it is drawn where it would stand. */
export function AnswerList({ which }: { which: Which }) {
  const { answered, setAnswered, draft, change, error } = which
  if (!answered) {
    return (
      <div className="grid gap-3 rounded-xl border border-line bg-sheet p-3.5">
        <Refused error={error} />
        <p>{t`Put P where the load is and S where it goes, touch the plan where a machine is wanted, and ask the yard: every machine is set up in mind, at each of its stands, and proved.`}</p>
      </div>
    )
  }
  const rows = inOrder(answered.answers, draft.order)
  return (
    <div className="grid gap-2">
      <Refused error={error} />
      <Choice
        label={t`In which order`}
        hideLabel
        value={draft.order}
        options={[
          { value: 'margin', label: t`Most left over` },
          { value: 'work', label: t`Least work` },
        ]}
        onChange={(order) => change({ order })}
      />
      <ul className="overflow-hidden rounded-xl border border-line bg-sheet" aria-label={t`Machines of the yard`}>
        {rows.map((a) => (
          <li key={a.machine.id} className="border-b border-line last:border-b-0">
            <AnswerRow
              a={a}
              open={answered.shown === a.machine.id}
              onOpen={() => setAnswered((x) => x && { ...x, shown: x.shown === a.machine.id ? null : a.machine.id, stand: 0 })}
              which={which}
            />
          </li>
        ))}
      </ul>
    </div>
  )
}

function AnswerRow({ a, open, onOpen, which }: { a: MachineChoice; open: boolean; onOpen: () => void; which: Which }) {
  const say = useSay()
  const { best, bars } = a
  const verdict = best?.assessment.verdict
  return (
    <>
      <button
        type="button"
        aria-expanded={open}
        onClick={onOpen}
        className={clsx('flex min-h-14 w-full items-center gap-3 px-3 py-1.5 text-left', open && 'bg-sunk')}
      >
        {verdict ? (
          <VerdictMark verdict={verdict} size={20} />
        ) : (
          <Ban size={20} aria-hidden="true" className="shrink-0 text-quiet" />
        )}
        <span className="min-w-0 grow">
          <span className="font-bold">{a.machine.name}</span> <span className="text-quiet">{a.machine.kind}</span>
          {bars.map((b) => (
            <span key={b.code} className="block text-[0.9rem] font-semibold text-outside">
              {told(b.why)}
            </span>
          ))}
          {a.unable && <span className="block text-[0.9rem] text-quiet">{unableWords(a.unable, say)}</span>}
        </span>
        {best && verdict && (
          <span className={clsx('shrink-0 text-right text-[0.9rem] font-bold', verdictTone[verdict].text)}>
            {(verdict === 'inside' || verdict === 'near') && best.margin !== null ? (
              <>
                <span className="figure block text-[1.15rem]">{share(best.margin)}</span>
                {t`left`}
              </>
            ) : (
              verdictWords[verdict].short
            )}
          </span>
        )}
      </button>
      {open && best && <Detail which={which} machine={a.machine.id} />}
    </>
  )
}

function Detail({ which, machine }: { which: Which; machine: string }) {
  const say = useSay()
  const { answered, setAnswered, lookFor, busy, draft } = which
  const ways = waysOf(which)
  const looked = answered?.positions?.machine === machine
  const shown = ways[answered?.stand ?? 0]
  if (!shown) return <p className="px-3 pb-3">{t`No other stand was found where its table rates this lift.`}</p>
  const { governing, verdict } = shown.assessment
  const slews = shown.way.lift.steps.some((s) => s.do === 'slew' || s.do === 'pose')
  return (
    <div className="grid gap-2 bg-sunk px-3 pb-3">
      <p className={clsx('font-bold', verdictTone[verdict].text)}>
        {verdict === 'inside' || verdict === 'near'
          ? t`Would be ${verdictWords[verdict].short.toLowerCase()}`
          : verdictWords[verdict].long}
      </p>
      {governing && <p className="leading-snug">{findingWords(governing, say).what}</p>}
      {shown.way.effort.length > 0 && (
        <p className="leading-snug text-quiet">{shown.way.effort.map((e) => effortWords(e, say)).join(' · ')}</p>
      )}
      {ways.length > 1 && (
        <SelectField
          label={looked ? t`Stands that were found, the nearest first` : t`From which stand`}
          value={`${answered?.stand ?? 0}`}
          options={ways.map((w, i) => ({ value: `${i}`, label: standWords(w, say) }))}
          onChange={(i) => setAnswered((a) => a && { ...a, stand: Number(i) })}
        />
      )}
      {slews && !looked && (
        <Button className="w-fit" disabled={busy !== null} onClick={() => void lookFor(machine, nearOf(draft))}>
          {busy === 'stands' ? t`Looking …` : t`Look for other stands`}
        </Button>
      )}
      <details>
        <summary className="flex min-h-12 cursor-pointer items-center font-semibold">{t`Taken as done: ${shown.way.assumed.length}`}</summary>
        <ul className="list-disc pl-5">
          {shown.way.assumed.map((x) => (
            <li key={assumedWords(x, say)}>{assumedWords(x, say)}</li>
          ))}
        </ul>
      </details>
      <details>
        <summary className="flex min-h-12 cursor-pointer items-center font-semibold">{t`What was not checked: ${shown.assessment.notChecked.length}`}</summary>
        <ul className="list-disc pl-5">
          {shown.assessment.notChecked.map((n) => (
            <li key={n}>{notCheckedWords[n]}</li>
          ))}
        </ul>
      </details>
    </div>
  )
}

function standWords(p: Proved, say: ReturnType<typeof useSay>): string {
  const { stand } = p.way
  const where = stand.label || t`${say('length', stand.x_m)}, ${say('length', stand.y_m)}`
  const left = p.margin !== null && p.assessment.verdict !== 'outside' ? ` · ${share(p.margin)}` : ''
  return `${where} · ${verdictWords[p.assessment.verdict].short}${left}`
}
