import { type Defect, type DefectState, stopsMachine } from '@geolabe/contract'
import { isClosed } from '@geolabe/core'
import clsx from 'clsx'
import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { moreOf, useDefectList, useMachine, useYard } from '../api/queries'
import { t } from '../language/t'
import { gradeWords } from '../language/words'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { Dialog } from '../look/dialog'
import { LongList } from '../look/long-list'
import { Loaded, Title } from '../look/page'
import { date, when } from '../look/when'
import { DefectForm } from './defect-form'

export const stateWords: Record<DefectState, string> = {
  raised: t`Raised`,
  acknowledged: t`Acknowledged`,
  repaired: t`Repair recorded`,
  verified: t`Repair looked at`,
  watched: t`Watched`,
  accepted: t`Accepted as it is`,
  returned: t`Returned to service`,
}

export const watchWords = (w: Pick<NonNullable<Defect['watched']>, 'untilDate' | 'untilHours'>) =>
  t`watched until ${[w.untilDate && date(w.untilDate), w.untilHours === null ? null : `${w.untilHours} h`].filter(Boolean).join(' or ')}`

export function Defects() {
  const [which, setWhich] = useState<'open' | 'all'>('open')
  const list = useDefectList(which === 'all')
  const [params, setParams] = useSearchParams()
  const raise = params.get('raise')
  const yard = useYard()
  const file = useMachine(raise ?? '', raise !== null)
  const navigate = useNavigate()
  const machines = yard.data?.machines ?? []
  const close = () => setParams({}, { replace: true })
  return (
    <>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <Title
          below={t`Danger to people and damage to the machine stop it for everyone until the person in charge returns it.`}
        >{t`Defects`}</Title>
        {machines[0] && <Button onClick={() => setParams({ raise: machines[0]?.id ?? '' })}>{t`Report a defect`}</Button>}
      </div>
      <div className="mb-4 max-w-sm">
        <Choice
          label={t`Which`}
          hideLabel
          value={which}
          onChange={setWhich}
          options={[
            { value: 'open', label: t`Open` },
            { value: 'all', label: t`All` },
          ]}
        />
      </div>
      <Loaded query={list}>
        {(data) => {
          const defects = data.pages.flatMap((p) => p.defects)
          return (
            <>
              {defects.length === 0 ? (
                <p className="rounded-xl border border-line bg-sheet p-6 text-lg">{t`No defect ${which === 'open' ? t`is open` : t`on record`}.`}</p>
              ) : null}
              <LongList
                label={t`Defects, the latest first`}
                items={defects}
                keyOf={(d) => d.id}
                row={(d) => <DefectRow defect={d} />}
                estimate_px={110}
                more={moreOf(list)}
              />
            </>
          )
        }}
      </Loaded>
      <Dialog
        open={raise !== null}
        onClose={close}
        title={t`Report a defect: ${machines.find((m) => m.id === raise)?.name ?? ''}`}
      >
        {machines.length > 1 && (
          <label className="mb-4 block font-semibold">
            {t`Machine`}
            <select
              className="field mt-1"
              value={raise ?? ''}
              onChange={(e) => setParams({ raise: e.target.value }, { replace: true })}
            >
              {machines.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.name}, {m.kind}
                </option>
              ))}
            </select>
          </label>
        )}
        {raise && (
          <DefectForm
            key={raise}
            machine={raise}
            shift={null}
            item={null}
            where={null}
            definition={file.data?.definition ?? null}
            near={null}
            onRaised={(id) => navigate(`/defects/${id}`)}
          />
        )}
      </Dialog>
    </>
  )
}

function DefectRow({ defect: d }: { defect: Defect }) {
  const ended = isClosed(d.state)
  const stops = (stopsMachine(d.grade) || d.pending) && !ended
  return (
    <Link
      to={`/defects/${d.id}`}
      className={clsx('flex overflow-hidden rounded-xl border-2 bg-sheet', stops ? 'border-outside' : 'border-line')}
    >
      <span className={clsx('w-3 shrink-0', ended ? 'bg-line' : stops ? 'hatch-outside' : 'hatch-near')} />
      <span className="min-w-0 grow p-4">
        <span className="flex flex-wrap justify-between gap-x-4">
          <span className="text-lg font-bold">{d.machine.name}</span>
          <span className="font-semibold">{d.pending ? t`Waits to be graded` : stateWords[d.state]}</span>
        </span>
        <span className="block">
          {d.where}: {d.words}
        </span>
        <span className="block text-quiet">
          {gradeWords[d.grade].label} · {d.raised.by.name}, {when(d.raised.at)}
          {d.watched && d.state === 'watched' && (
            <strong className={d.watched.over ? 'text-outside' : ''}>
              {' '}
              · {d.watched.over ? t`its time is over, look at it` : watchWords(d.watched)}
            </strong>
          )}
          {d.worsenedAt && !ended && <strong className="text-outside"> {t`· it has worsened`}</strong>}
        </span>
      </span>
    </Link>
  )
}
