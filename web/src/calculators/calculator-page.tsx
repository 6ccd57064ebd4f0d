import { type Calculator, calculatorNamed, implausible, isRefusal, type Say, transferToLift, worseVerdict } from '@geolabe/core'
import { useQuery } from '@tanstack/react-query'
import { Copy, Link2, RotateCcw } from 'lucide-react'
import { lazy, Suspense, useEffect, useMemo, useState } from 'react'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import { useMe } from '../api/me'
import { outbox } from '../api/outbox'
import { useMyShifts } from '../api/queries'
import { calculatorWords } from '../language/calculator-words'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { Loaded, Sheet, Title } from '../look/page'
import { VerdictMark, verdictTone } from '../look/verdict'
import { keepForLift } from '../transfer/transfer-to-lift'
import { useSay } from '../units/units'
import { Gripped } from './drawings/grip'
import type { Hero, Presentation } from './drawings/present'
import { fromLink, toLink } from './link'
import { presentationOf } from './presentations'
import { isObj, type Json, moved, type Obj, plainOf, schemaOf } from './schema'

const Editor = lazy(() => import('./form').then((m) => ({ default: m.Editor })))
const MeasuredFields = lazy(() => import('./measured-fields').then((m) => ({ default: m.MeasuredFields })))
const MarkedStops = lazy(() => import('./marked-stops').then((m) => ({ default: m.MarkedStops })))
const FromShift = lazy(() => import('./from-shift').then((m) => ({ default: m.FromShift })))
const SavedLoads = lazy(() => import('./saved-loads').then((m) => ({ default: m.SavedLoads })))

/** One calculator: what goes in on the left, the answer with its drawing on the right, nothing to press in between. */
export function CalculatorPage() {
  const { name = '' } = useParams()
  const shown = useQuery({
    queryKey: ['calculator', name],
    queryFn: () => presentationOf(name),
    staleTime: Number.POSITIVE_INFINITY,
    networkMode: 'always',
  })
  return (
    <Loaded query={shown}>
      {(p) =>
        p ? (
          <Page key={name} calculator={p.calculator} shown={p.presentation} />
        ) : (
          <>
            <Title>{t`No such calculator`}</Title>
            <Link to="/calculators" className="font-semibold underline">{t`To all the calculators`}</Link>
          </>
        )
      }
    </Loaded>
  )
}

const kept = (name: string) => `geolabe.calculator.${name}`
function firstInput(name: string, hash: string, example: Obj): Obj {
  const linked = fromLink(hash)
  if (linked) return linked
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(kept(name)) ?? 'null')
    if (isObj(stored)) return stored
  } catch {
    // Kept by an earlier version in another shape: the example will do.
  }
  return example
}

/** Another table has other configurations: the first stands in for one that it lacks. */
function settled(input: Obj): Obj {
  const t = input.table ?? input.chart
  if (!isObj(t) || !Array.isArray(t.configurations) || typeof input.configuration !== 'string') return input
  const all = t.configurations.filter(isObj)
  const now = all.find((c) => c.id === input.configuration) ?? all[0]
  const sections = now && Array.isArray(now.columnNames) ? now.columnNames : null
  const section =
    sections && typeof input.section === 'string' && !sections.includes(input.section) ? { section: sections[0] ?? null } : {}
  return now ? { ...input, configuration: now.id, ...section } : input
}

function Page({ calculator, shown }: { calculator: Calculator; shown: Presentation }) {
  const { name } = calculator
  const { title } = calculatorWords(calculator)
  const say = useSay()
  const me = useMe()
  const { hash } = useLocation()
  const [input, setInput] = useState<Obj>(() => firstInput(name, hash, calculator.example as Obj))
  const schema = useMemo(() => withChoices(schemaOf(calculator.input), input), [calculator, input])
  const answer = useMemo(() => calculator.run(input), [calculator, input])
  const fault = isRefusal(answer) ? answer.error : null
  const odd = useMemo(() => implausible(input), [input])
  // The last answer stays in sight, greyed, while a figure is being typed.
  const [last, setLast] = useState<{ input: Obj; output: object } | null>(null)
  useEffect(() => {
    if (!fault) setLast({ input, output: answer })
    try {
      localStorage.setItem(kept(name), JSON.stringify(input))
    } catch {
      // A full or forbidden store: the calculator still works.
    }
  }, [answer, fault, input, name])
  const now = fault ? last : { input, output: answer }
  const plain = now ? plainOf(now.input) : null
  return (
    <>
      <Title below={told(calculator.purpose)}>{title}</Title>
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-5 pb-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)] lg:grid-rows-[auto_1fr]">
        <div className="grid gap-4 lg:col-start-2">
          {fault && (
            <div role="alert" className="overflow-hidden rounded-lg border-2 border-outside bg-sheet">
              <div className="h-2 hatch-outside" />
              <p className="p-3">
                <strong className="text-outside">{told(fault.message)}</strong>
                {fault.path && <span className="block text-[0.92rem] text-quiet">{t`At ${fault.path}.`}</span>}
              </p>
            </div>
          )}
          {odd.length > 0 && (
            <div className="overflow-hidden rounded-lg border-2 border-near bg-sheet" role="status">
              <div className="h-2 hatch-near" />
              {odd.map((o) => (
                <p key={o.path} className="px-3 py-2">
                  <strong className="text-near">{told(o.message)}</strong>{' '}
                  <span className="text-[0.92rem] text-quiet">{t`At ${o.path}.`}</span>
                </p>
              ))}
            </div>
          )}
          {now && plain && (
            <div className={fault ? 'grid gap-4 opacity-45' : 'grid gap-4'} inert={fault !== null}>
              <Answer heroes={heroesOf(shown, plain, now.output, say)} />
              <Worked calculator={calculator} shown={shown} input={now.input} output={now.output} say={say} onMove={setInput} />
            </div>
          )}
        </div>
        <section aria-label={t`What goes in`} className="grid gap-3 lg:col-start-1 lg:row-span-2 lg:row-start-1">
          {me.data && shown.mine && (
            <Suspense fallback={null}>
              <FromShift mine={shown.mine} onTake={(known) => setInput(JSON.parse(JSON.stringify({ ...input, ...known })))} />
            </Suspense>
          )}
          {shown.keepsInputs && (
            <Suspense fallback={null}>
              <SavedLoads input={input} onTake={setInput} />
            </Suspense>
          )}
          {me.data && shown.asMeasured?.feet && (
            <Suspense fallback={null}>
              <MarkedStops field={shown.asMeasured.feet} input={input} onChange={setInput} />
            </Suspense>
          )}
          {shown.asMeasured && (
            <Suspense fallback={null}>
              <MeasuredFields measured={shown.asMeasured} input={input} onChange={setInput} />
            </Suspense>
          )}
          <Suspense fallback={null}>
            <Editor
              schema={schema}
              value={input}
              onChange={(v) => setInput(settled(isObj(v) ? v : {}))}
              path=""
              name=""
              fault={fault}
            />
          </Suspense>
          <p className="flex flex-wrap items-center gap-2">
            <Button look="quiet" onClick={() => setInput(calculator.example as Obj)}>
              <RotateCcw size={18} aria-hidden="true" /> {t`Back to the example`}
            </Button>
          </p>
        </section>
        <div className="grid gap-4 lg:col-start-2">
          {!fault && plain && (
            <>
              <Actions name={name} title={title} input={input} output={answer} heroes={heroesOf(shown, plain, answer, say)} />
              <Sheet title={t`How`}>
                <ol className="grid gap-1.5">
                  {shown.steps(plain, answer).map((s) => (
                    <li key={s} className="figure text-[0.95rem] leading-snug">
                      {told(s)}
                    </li>
                  ))}
                </ol>
                <p className="mt-3 text-[0.92rem] text-quiet">{t`By: ${told(calculator.source)} The edition in force here decides.`}</p>
              </Sheet>
            </>
          )}
          <Sheet title={t`Caution`}>
            <ul className="grid list-disc gap-1 pl-5">
              {calculator.cautions.map((c) => (
                <li key={c}>{told(c)}</li>
              ))}
            </ul>
          </Sheet>
        </div>
      </div>
    </>
  )
}

/** The drawing, with what of it is dragged: where an input cannot go, it stays where it could be last, and why is said. */
function Worked({
  calculator,
  shown: { Drawing, grips },
  input,
  output,
  say,
  onMove,
}: {
  calculator: Calculator
  shown: Presentation
  input: Obj
  output: object
  say: Say
  onMove: (input: Obj) => void
}) {
  const [held, setHeld] = useState(false)
  const [border, setBorder] = useState('')
  const plain = plainOf(input)
  const worked = {
    grips: grips?.(plain, output, say) ?? [],
    held,
    onHold: (now: boolean) => {
      setHeld(now)
      if (!now) setBorder('')
    },
    onMove: (part: unknown, beyond: boolean) => {
      const next = moved(input, part as Json)
      const answer = calculator.run(next)
      setBorder(isRefusal(answer) ? answer.error.message : beyond ? t`the drawing ends here. Let go and take it up again.` : '')
      if (!isRefusal(answer) && isObj(next)) onMove(next)
    },
  }
  return (
    <div>
      <Gripped value={worked}>
        <Drawing input={plain} output={output} say={say} />
      </Gripped>
      {worked.grips.length > 0 && (
        <p role="status" className={`mt-1 text-[0.92rem] ${border ? 'font-semibold text-outside' : 'text-quiet'}`}>
          {border ? t`No further: ${border}` : t`Drag the points.`}
        </p>
      )}
    </div>
  )
}

/** Where an input names a configuration or section of its own table, those are what there is to choose from. */
function withChoices(schema: ReturnType<typeof schemaOf>, input: Obj): ReturnType<typeof schemaOf> {
  const t = input.table ?? input.chart
  if (!isObj(t) || !Array.isArray(t.configurations)) return schema
  const all = t.configurations.filter(isObj)
  const sections = all.find((c) => c.id === input.configuration)?.columnNames
  const choices: Record<string, Json[]> = {
    configuration: all.map((c) => c.id ?? null),
    ...(Array.isArray(sections) ? { section: sections } : {}),
  }
  const properties = Object.fromEntries(
    Object.entries(schema.properties ?? {}).map(([k, s]) => [k, choices[k] ? { enum: (choices[k] as Json[]).map(String) } : s]),
  )
  return { ...schema, properties }
}

type Doubtful = Hero & { ends?: readonly string[] }

/** Figures with both ends of their doubt; a verdict is that of the worse end. */
function heroesOf(shown: Presentation, plain: Obj, output: object, say: Say): Doubtful[] {
  const middle = shown.hero(plain, output, say)
  if (!('low' in output && 'high' in output)) return middle
  const ends = [output.low, output.high].map((end) => shown.hero(plain, end, say))
  return middle.map((h, i) => {
    const both = ends.map((e) => e[i]).filter((e) => e !== undefined)
    const worst = [h, ...both].map((e) => e.verdict).reduce((a, b) => (a && b ? worseVerdict(a, b) : (a ?? b)), h.verdict)
    const values = both.map((e) => e.value)
    const apart = values.some((v) => v !== h.value)
    return { ...h, ...(worst ? { verdict: worst } : {}), ...(apart ? { ends: values } : {}) }
  })
}

function Answer({ heroes }: { heroes: Doubtful[] }) {
  const doubtful = heroes.some((h) => h.ends)
  return (
    <section
      aria-label={t`Answer`}
      aria-live="polite"
      className="grid grid-cols-[repeat(auto-fit,minmax(8.2rem,1fr))] *:first:max-sm:col-span-full gap-x-5 gap-y-3 rounded-xl border-2 border-ink bg-sheet p-4"
    >
      {heroes.map((h, i) => (
        <div key={h.label}>
          <p className="text-[0.92rem] text-quiet">{h.label}</p>
          <p
            className={`figure flex items-center gap-2 leading-tight font-bold ${i === 0 ? 'text-[1.7rem]' : 'text-[1.25rem]'} ${h.verdict ? verdictTone[h.verdict].text : ''}`}
          >
            {h.verdict && <VerdictMark verdict={h.verdict} size={22} />}
            {h.value}
          </p>
          {h.ends && (
            <p className="figure text-[0.92rem] text-quiet">
              {/* A figure keeps its unit beside it where the line breaks. */}
              {h.ends.map((end, k) => (
                <span key={k === 0 ? 'low' : 'high'} className="whitespace-nowrap">
                  {k > 0 && '… '}
                  {end}{' '}
                </span>
              ))}
            </p>
          )}
        </div>
      ))}
      {doubtful && (
        <p className="col-span-full text-[0.92rem] text-quiet">{t`Small: both ends of the ±. The verdict is that of the worse end; drawn and worked as given.`}</p>
      )}
    </section>
  )
}

function Actions({
  name,
  title,
  input,
  output,
  heroes,
}: {
  name: string
  title: string
  input: Obj
  output: object
  heroes: Hero[]
}) {
  const me = useMe()
  const [said, setSaid] = useState('')
  const link = () => `${globalThis.location.origin}/calculators/${name}#${toLink(input)}`
  const copy = async (text: string, what: string) => {
    try {
      await navigator.clipboard.writeText(text)
      setSaid(t`${what} copied.`)
    } catch {
      setSaid(t`This browser does not let anything be copied.`)
    }
  }
  const words = () =>
    [title, ...heroes.map((h) => `${h.label}: ${h.value}`), JSON.stringify({ calculator: name, input, output })].join('\n')
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Button onClick={() => void copy(words(), t`The answer is`)}>
        <Copy size={18} aria-hidden="true" /> {t`Copy`}
      </Button>
      <Button onClick={() => void copy(link(), t`The link is`)}>
        <Link2 size={18} aria-hidden="true" /> {t`Link`}
      </Button>
      {me.data && <UseInShift name={name} input={input} output={output} onSaid={setSaid} />}
      <p role="status" className="font-semibold">
        {said}
      </p>
    </div>
  )
}

function UseInShift({ name, input, output, onSaid }: { name: string; input: Obj; output: object; onSaid: (s: string) => void }) {
  const shifts = useMyShifts()
  const navigate = useNavigate()
  const open = shifts.data?.shifts.find((s) => s.closedAt === null)
  if (!open) return null
  const calculator = calculatorNamed(name)
  const transfer = calculator ? transferToLift(calculator, output) : null
  const note = async () => {
    try {
      await outbox.send('note-calculation', { shift: open.id }, { calculator: name, input })
      onSaid(t`Noted in the record of ${open.machine.name}’s shift.`)
    } catch (e) {
      onSaid(e instanceof Error ? e.message : String(e))
    }
  }
  return (
    <>
      {transfer && (
        <Button
          look="next"
          onClick={() => {
            keepForLift(open.id, transfer)
            void note()
            navigate(`/shifts/${open.id}/prove`)
          }}
        >{t`Use in this lift`}</Button>
      )}
      <Button onClick={() => void note()}>{t`Note in ${open.machine.name}’s shift`}</Button>
    </>
  )
}
