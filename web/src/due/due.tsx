import { type DueLine, dutyDoneRequest, type EnergyLine } from '@geolabe/contract'
import clsx from 'clsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { newId } from '../api/client'
import { queryClient } from '../api/me'
import { outbox } from '../api/outbox'
import { useDue } from '../api/queries'
import { plural, t, told } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { DateEntry } from '../look/date-entry'
import { Dialog } from '../look/dialog'
import { FigureEntry } from '../look/entries'
import { Form, TextEntry, useEntry } from '../look/form'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { date } from '../look/when'
import { Calendar } from './calendar'

const byWords: Record<string, string> = { operator: t`Operator`, fitter: t`Fitter`, outside: t`Outside examiner` }

/** What falls due, the most pressing first; the same on a calendar; and what to charge or refuel today. */
export function Due() {
  const due = useDue()
  const [view, setView] = useState<'list' | 'calendar'>('list')
  const [which, setWhich] = useState<'pressing' | 'all'>('pressing')
  const [done, setDone] = useState<DueLine | null>(null)
  return (
    <>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <Title below={t`By date, or expected from use; the earlier counts.`}>{t`What falls due`}</Title>
        <a
          className="flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold"
          href="/api/exports/due.ics"
          download
        >{t`As a calendar file`}</a>
      </div>
      <div className="mb-4 flex flex-wrap gap-3">
        <div className="min-w-52">
          <Choice
            label={t`View`}
            hideLabel
            value={view}
            onChange={setView}
            options={[
              { value: 'list', label: t`List` },
              { value: 'calendar', label: t`Calendar` },
            ]}
          />
        </div>
        {view === 'list' && (
          <div className="min-w-60">
            <Choice
              label={t`Which`}
              hideLabel
              value={which}
              onChange={setWhich}
              options={[
                { value: 'pressing', label: t`Pressing` },
                { value: 'all', label: t`All` },
              ]}
            />
          </div>
        )}
      </div>
      <Loaded query={due}>
        {(page) =>
          view === 'calendar' ? (
            <Calendar page={page} onPick={setDone} />
          ) : (
            <div className="grid items-start gap-4 pb-8 lg:grid-cols-[1.6fr_1fr]">
              <Lines lines={page.due.filter((d) => which === 'all' || d.state !== 'later')} onDone={setDone} />
              <Energy lines={page.energy} />
            </div>
          )
        }
      </Loaded>
      <Dialog open={done !== null} onClose={() => setDone(null)} title={done ? `${done.machineName}: ${done.label}` : ''}>
        {done && <DoneForm line={done} onDone={() => setDone(null)} />}
      </Dialog>
    </>
  )
}

const impediments: Record<DueLine['state'], string> = {
  overdue: 'hatch-outside',
  never: 'hatch-unproven',
  soon: 'hatch-near',
  later: 'bg-line',
}

/** When, in words: never a bare date where it is only expected. */
export function dueWords(d: DueLine): string {
  if (d.state === 'never') return t`Never recorded: not proven`
  const left = d.hoursLeft === null || d.hoursLeft <= 0 || d.state === 'overdue' ? '' : t`, ${Math.round(d.hoursLeft)} h left`
  if (d.date === null) return `${d.note ?? t`Not known when`}${left}`
  const days = d.daysLeft ?? 0
  const away =
    days === 0
      ? t`today`
      : days < 0
        ? plural(-days, { one: '# day ago', other: '# days ago' })
        : plural(days, { one: 'in # day', other: 'in # days' })
  const since =
    d.state === 'overdue' ? (d.expectedBy === 'use' ? t`By hours since ` : t`Since `) : d.expectedBy === 'use' ? t`Expected ` : ''
  return `${since}${date(d.date)}, ${away}${left}`
}

function Lines({ lines, onDone }: { lines: DueLine[]; onDone: (d: DueLine) => void }) {
  if (lines.length === 0) return <p className="rounded-xl border border-line bg-sheet p-6 text-lg">{t`Nothing is pressing.`}</p>
  return (
    <ul className="grid gap-2">
      {lines.map((d) => (
        <li
          key={`${d.machine} ${d.duty}`}
          className={clsx(
            'flex overflow-hidden rounded-xl border-2 bg-sheet',
            d.state === 'overdue' ? 'border-outside' : 'border-line',
          )}
        >
          <span className={clsx('w-3 shrink-0', impediments[d.state])} />
          <span className="flex min-w-0 grow flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2.5">
            <span className="min-w-0 grow basis-56">
              <Link to={`/machines/${d.machine}`} className="text-lg font-bold hover:underline">
                {d.machineName}
              </Link>
              <span className="ml-2 text-lg">{d.label}</span>
              <span
                className={clsx(
                  'block',
                  d.state === 'overdue' ? 'font-bold text-outside' : d.state === 'soon' && 'font-semibold text-near',
                )}
              >
                {dueWords(d)}
              </span>
              <span className="block text-[0.92rem] text-quiet">
                {byWords[d.by]} · {d.last ? t`last ${d.last.on}` : t`no record`} · {d.source}
              </span>
            </span>
            <Button onClick={() => onDone(d)}>{t`Done`}</Button>
          </span>
        </li>
      ))}
    </ul>
  )
}

const actions: Record<EnergyLine['action'], string> = {
  'refill-now': 'hatch-outside',
  'refill-today': 'hatch-near',
  'read-it': 'hatch-unproven',
  nothing: 'bg-line',
}

function Energy({ lines }: { lines: EnergyLine[] }) {
  return (
    <Sheet title={t`Charge and refuel`}>
      <p className="mb-3 text-quiet">{t`When low, under 30 %, unless the battery’s own book asks for more.`}</p>
      <ul className="grid gap-2">
        {lines.map((e) => (
          <li key={e.machine} className="flex overflow-hidden rounded-lg border border-line">
            <span className={clsx('w-2.5 shrink-0', actions[e.action])} />
            <span className="grow px-3 py-1.5">
              <span className="flex flex-wrap justify-between gap-x-3">
                <strong>{e.machineName}</strong>
                <span className="figure">
                  {e.share === null ? t`not read` : `${Math.round(e.share * 100)} %`}
                  {e.hoursLeft !== null && <span className="text-quiet"> {t`· ${e.hoursLeft.toFixed(1)} h`}</span>}
                </span>
              </span>
              <span className={e.action === 'nothing' ? 'text-quiet' : 'font-semibold'}>
                {told(e.why)}
                {e.action !== 'nothing' &&
                  e.refill_h !== null &&
                  e.kind === 'battery' &&
                  t` About ${e.refill_h.toFixed(1)} h to full.`}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  )
}

function DoneForm({ line, onDone }: { line: DueLine; onDone: () => void }) {
  const byHours = line.every_hours !== null
  const form = useEntry(byHours ? dutyDoneRequest.refine((d) => d.hours !== null, metersDue) : dutyDoneRequest, {
    id: newId(),
    duty: line.duty,
    on: new Date().toISOString().slice(0, 10),
    hours: null,
    words: '',
  })
  const { control } = form
  const [error, setError] = useState<unknown>(null)
  const record = form.handleSubmit(async (body) => {
    setError(null)
    try {
      await outbox.send('record-due', { machine: line.machine }, body)
      for (const key of ['due', 'yard', 'machine', 'life']) void queryClient.invalidateQueries({ queryKey: [key] })
      onDone()
    } catch (e) {
      setError(e)
    }
  })
  return (
    <Form onSubmit={record}>
      <p className="text-quiet">{t`${dueWords(line)}. Recorded by: ${byWords[line.by]?.toLowerCase()} or the person in charge.`}</p>
      <DateEntry control={control} name="on" label={t`Done on`} />
      {byHours && <FigureEntry control={control} name="hours" label={t`Meter then, hours`} />}
      <TextEntry control={control} name="words" label={t`What was found`} rows={2} />
      <Refused error={error} />
      <Button look="next" type="submit">{t`Record it as done`}</Button>
    </Form>
  )
}

const metersDue = { message: t`Read the meter: this falls due by its hours.`, path: ['hours'] }
