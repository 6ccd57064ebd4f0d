import { type Exam, examRequest, gamesIn, type PeoplePage, type PracticeGames } from '@geolabe/contract'
import { first_level, type LoadSet, type Plane } from '@geolabe/core'
import clsx from 'clsx'
import { useState } from 'react'
import type { Control } from 'react-hook-form'
import { Link, useNavigate } from 'react-router'
import { z } from 'zod'
import { call, newId } from '../api/client'
import { queryClient, useMe } from '../api/me'
import { useExams, usePeople, usePracticeGames, useYard } from '../api/queries'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { DateEntry } from '../look/date-entry'
import { ChoiceEntry, FigureEntry, SelectEntry } from '../look/entries'
import { SelectField } from '../look/field'
import { Form, useEntry } from '../look/form'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { date } from '../look/when'
import { examWords, isPast, standing, triesLeft } from './exam-words'
import { gameNames } from './ways'

/** One's own exams, and where an assessor sets and follows theirs. */
export function Exams() {
  const [exams, me] = [useExams(), useMe().data]
  const assesses = me?.roles.includes('assessor') ?? false
  return (
    <>
      <Title below={t`Practice seen by an assessor. Every try counts, and every course is new.`}>{t`Exams of practice`}</Title>
      <div className={clsx('grid items-start gap-4 pb-6', assesses && 'md:grid-cols-2')}>
        <Loaded query={exams}>
          {({ exams: all }) => (
            <div className="grid gap-4">
              {all.length === 0 && (
                <Sheet>
                  <p className="text-lg font-bold">{assesses ? t`You have set none yet.` : t`Nobody has set one for you.`}</p>
                </Sheet>
              )}
              <ExamList title={t`To be sat by you`} exams={all.filter((e) => e.person.id === me?.id)} />
              <ExamList title={t`Set by you, waiting for you`} exams={all.filter((e) => mine(e, me?.id) && waits(e))} named />
              <ExamList title={t`Set by you`} exams={all.filter((e) => mine(e, me?.id) && !waits(e))} named />
            </div>
          )}
        </Loaded>
        {assesses && <SetExam />}
      </div>
    </>
  )
}

const mine = (e: Exam, me: string | undefined) => e.assessor.id === me
/** Something has been sat that its assessor has neither certified nor left behind. */
const waits = (e: Exam) => e.certificate === null && e.made.some((m) => m.result?.passed)

function ExamList({ title, exams, named }: { title: string; exams: readonly Exam[]; named?: true }) {
  if (exams.length === 0) return null
  return (
    <Sheet title={title}>
      <ul className="grid gap-2">
        {exams.map((e) => {
          const left = triesLeft(e)
          return (
            <li key={e.id}>
              <Link
                to={`/practice/exams/${e.id}`}
                className={clsx(
                  'flex min-h-14 flex-wrap items-baseline gap-x-3 rounded-lg border-2 px-3 py-2 hover:bg-sunk',
                  left > 0 && !named ? 'border-ink bg-accent text-on-accent shadow-[0_3px_0_var(--ink)]' : 'border-edge bg-paper',
                )}
              >
                <strong>{named ? t`${e.person.name}: ${examWords(e)}` : examWords(e)}</strong>
                <span>{standing(e)}</span>
                <span className={left > 0 && !named ? '' : 'text-quiet'}>
                  {left > 0
                    ? t`${plural(left, { one: '# try left', other: '# tries left' })}, until ${date(e.until)}`
                    : isPast(e)
                      ? t`until ${date(e.until)}`
                      : plural(e.made.length, { one: '# try made', other: '# tries made' })}
                </span>
              </Link>
            </li>
          )
        })}
      </ul>
    </Sheet>
  )
}

function SetExam() {
  const [people, games] = [usePeople(), usePracticeGames()]
  const yard = useYard()
  return (
    <Sheet title={t`Set an exam`}>
      <Loaded query={people}>
        {(p) => (
          <Loaded query={games}>
            {(g) => <Loaded query={yard}>{(y) => <SetForm people={p} games={g} names={y.machines} />}</Loaded>}
          </Loaded>
        )}
      </Loaded>
    </Sheet>
  )
}

const inTwoWeeks = () => new Date(Date.now() + 14 * 86_400_000).toISOString().slice(0, 10)

const planeNames: Record<Plane, string> = { across: t`Across the boom`, along: t`Along the boom` }
/** Where in its swing a load is let go. */
const phases = (plane: Plane) => [
  { value: '0', label: plane === 'across' ? t`at its top, to the left` : t`at its top, outward` },
  { value: '90', label: t`through the middle, on its way back` },
  { value: '180', label: plane === 'across' ? t`at its top, to the right` : t`at its top, inward` },
  { value: '270', label: t`through the middle, on its way there` },
]

/** As it is typed: how hard in hundredths. */
const entered = examRequest.extend({
  level: z
    .number(t`Say how hard, from 10 to 100.`)
    .min(100 * first_level, 'From 10 to 100.')
    .max(100, 'From 10 to 100.'),
})

/** What of load control the assessor sets: how the load swings to begin with, the wind, the clock. */
function LoadEntries({
  control,
  planes,
  set,
  onSet,
}: {
  control: Control<z.input<typeof entered>>
  planes: readonly Plane[]
  set: LoadSet
  onSet: (to: LoadSet | null) => void
}) {
  const change = (to: Partial<LoadSet>) => {
    const all = Object.entries({ ...set, ...to }).filter(([, v]) => v !== undefined)
    onSet(all.length > 0 ? Object.fromEntries(all) : null)
  }
  const first = { amplitude_deg: 4, phase_deg: 0 }
  const swings = planes.filter((p) => set[p])
  const both = planes.length > 1 ? [{ value: 'both', label: t`Both ways` }] : []
  return (
    <>
      <Choice
        label={t`How the load swings to begin with`}
        options={[
          { value: 'course', label: t`As the course has it` },
          ...planes.map((plane) => ({ value: plane, label: planeNames[plane] })),
          ...both,
        ]}
        value={swings.length > 1 ? 'both' : (swings[0] ?? 'course')}
        onChange={(v) => {
          const has = (p: Plane) => (v === p || v === 'both' ? (set[p] ?? first) : undefined)
          change({ across: has('across'), along: has('along') })
        }}
      />
      {swings.map((plane) => (
        <div key={plane} role="group" aria-label={planeNames[plane]} className="grid gap-3 sm:grid-cols-2">
          <FigureEntry
            control={control}
            name={`settings.${plane}.amplitude_deg`}
            label={swings.length > 1 ? t`${planeNames[plane]}: how wide, 1 to 15°` : t`How wide, 1 to 15°`}
          />
          <SelectField
            label={t`Let go`}
            value={String(set[plane]?.phase_deg ?? 0)}
            options={phases(plane)}
            onChange={(v) => change({ [plane]: { ...first, ...set[plane], phase_deg: Number(v) } })}
          />
        </div>
      ))}
      <div className="grid gap-3 sm:grid-cols-2">
        <Choice
          label={t`Wind`}
          options={[
            { value: 'course', label: t`As the course has it` },
            { value: 'set', label: t`As I set it` },
          ]}
          value={set.wind ? 'set' : 'course'}
          onChange={(v) => change({ wind: v === 'set' ? { mean_mps: 5, gust_mps: 3 } : undefined })}
        />
        <Choice
          label={t`Clock`}
          options={[
            { value: 'shown', label: t`Shown` },
            { value: 'hidden', label: t`Not shown` },
            { value: 'hurry', label: t`Runs down` },
          ]}
          value={typeof set.clock === 'number' ? 'hurry' : (set.clock ?? 'shown')}
          onChange={(v) => change({ clock: v === 'hurry' ? 120 : v === 'hidden' ? v : undefined })}
        />
      </div>
      {(set.wind || typeof set.clock === 'number') && (
        <div className="grid gap-3 sm:grid-cols-3">
          {set.wind && (
            <>
              <FigureEntry control={control} name="settings.wind.mean_mps" label={t`Mean wind, m/s`} />
              <FigureEntry control={control} name="settings.wind.gust_mps" label={t`More in gusts, m/s`} />
            </>
          )}
          {typeof set.clock === 'number' && <FigureEntry control={control} name="settings.clock" label={t`Down from, s`} />}
        </div>
      )}
    </>
  )
}

function SetForm({
  people,
  games: offered,
  names,
}: {
  people: PeoplePage
  games: PracticeGames
  names: readonly { id: string; name: string }[]
}) {
  const navigate = useNavigate()
  const me = useMe().data
  const [error, setError] = useState<unknown>(null)
  const { control, handleSubmit, watch, setValue } = useEntry(entered, {
    id: newId(),
    person: '',
    machine: '',
    level: 20,
    tries: 3,
    until: inTwoWeeks(),
    settings: null,
    word: false,
  })
  const [machine, game, settings, word] = watch(['machine', 'game', 'settings', 'word'])
  const of = offered.machines.find((m) => m.machine === machine)
  const there = of ? gamesIn(of) : []
  const set = handleSubmit(async (body) => {
    setError(null)
    try {
      const e = await call<Exam>({
        method: 'POST',
        path: '/practice/exams',
        body: { ...body, level: body.level / 100, settings: body.game === 'load' ? body.settings : null },
        key: body.id,
      })
      await queryClient.invalidateQueries({ queryKey: ['practice', 'exams'] })
      navigate(`/practice/exams/${e.id}`)
    } catch (x) {
      setError(x)
    }
  })
  const choose = { value: '', label: t`Choose` }
  const sit = people.people.filter((p) => p.roles.includes('operator') && p.id !== me?.id)
  const machines = names.filter(({ id }) => offered.machines.some((o) => o.machine === id && gamesIn(o).length > 0))
  return (
    <Form onSubmit={set}>
      <SelectEntry
        control={control}
        name="person"
        label={t`Who`}
        options={[choose, ...sit.map((p) => ({ value: p.id, label: p.name }))]}
      />
      <SelectEntry
        control={control}
        name="machine"
        label={t`On which machine`}
        options={[choose, ...machines.map((m) => ({ value: m.id, label: m.name }))]}
      />
      {there.length > 0 && (
        <ChoiceEntry
          control={control}
          name="game"
          label={t`What`}
          options={there.map((g) => ({ value: g, label: gameNames[g] }))}
        />
      )}
      {game === 'load' && (
        <LoadEntries control={control} planes={of?.load ?? []} set={settings ?? {}} onSet={(to) => setValue('settings', to)} />
      )}
      {game && (
        <Choice
          label={t`When a try goes on`}
          options={[
            { value: 'begun', label: t`As soon as it is begun` },
            { value: 'word', label: t`At my word` },
          ]}
          value={word ? 'word' : 'begun'}
          onChange={(v) => setValue('word', v === 'word')}
        />
      )}
      {game && (
        <p className="text-quiet">{t`Practice begins at 10; at 80 rings are small, lanes narrow and people mind nobody.`}</p>
      )}
      <div className="grid gap-3 sm:grid-cols-[1fr_1fr_1.6fr]">
        <FigureEntry control={control} name="level" label={t`How hard, 10 to 100`} />
        <FigureEntry control={control} name="tries" label={t`Tries`} />
        <DateEntry control={control} name="until" label={t`Last day`} />
      </div>
      <Refused error={error} />
      <Button look="next" type="submit">{t`Set this exam`}</Button>
    </Form>
  )
}
