import type { Me, PeoplePage, PersonLine } from '@geolabe/contract'
import { impedimentsTo, licenceExpiries } from '@geolabe/core'
import clsx from 'clsx'
import { useState } from 'react'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { usePeople } from '../api/queries'
import { plural, t } from '../language/t'
import { roleWords } from '../language/words'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { date } from '../look/when'
import { choiceOf } from '../units/field-names'

const today = () => new Date().toISOString().slice(0, 10)

/** Who may: licences and when they run out, training, and the key to each machine. */
/** What stands between somebody and a machine, in a word or two. */
const lackWords: Record<string, string> = {
  role: t`not an operator`,
  'no-licence': t`no licence`,
  'licence-expired': t`licence expired`,
  'not-trained': t`not trained`,
}

export function People({ me }: { me: Me }) {
  const people = usePeople()
  return (
    <>
      <Title below={t`A shift cannot start without licence, training and the key to that machine.`}>{t`Who may`}</Title>
      <Loaded query={people}>{(p) => <Everybody page={p} me={me} />}</Loaded>
    </>
  )
}

function Everybody({ page, me }: { page: PeoplePage; me: Me }) {
  const [error, setError] = useState<unknown>(null)
  const gives = me.roles.includes('person-in-charge') || me.roles.includes('administrator')
  const operators = page.people.filter((p) => p.roles.includes('operator'))
  const soon = operators.flatMap((p) =>
    licenceExpiries(p, today())
      .filter((x) => x.state !== 'in-date')
      .map((x) => ({ person: p, ...x })),
  )
  const key = async (person: string, machine: string, give: boolean) => {
    setError(null)
    try {
      const next = await call<PeoplePage>({
        method: 'POST',
        path: `/people/${person}/keys`,
        body: { machine, give },
        key: newId(),
      })
      queryClient.setQueryData(['people'], next)
      void queryClient.invalidateQueries({ queryKey: ['me'] })
    } catch (e) {
      setError(e)
    }
  }
  return (
    <div className="grid gap-4 pb-8">
      <Refused error={error} />
      {soon.length > 0 && (
        <Sheet title={t`Licences that run out`}>
          <ul className="grid gap-1">
            {soon
              .sort((a, b) => a.daysLeft - b.daysLeft)
              .map((x) => (
                <li
                  key={`${x.person.id} ${x.class}`}
                  className={clsx('border-l-4 pl-3', x.state === 'expired' ? 'border-outside' : 'border-near')}
                >
                  <strong>{x.person.name}</strong>, {choiceOf(x.class)}:{' '}
                  {x.state === 'expired' ? (
                    <strong className="text-outside">{t`ran out ${date(x.validUntil)}`}</strong>
                  ) : (
                    plural(x.daysLeft, { one: '{1}, in # day', other: '{1}, in # days' }, date(x.validUntil))
                  )}
                </li>
              ))}
          </ul>
        </Sheet>
      )}
      <div className="grid gap-4 lg:grid-cols-2">
        {operators.map((p) => (
          <Person key={p.id} person={p} page={page} gives={gives && p.id !== me.id} onKey={key} />
        ))}
      </div>
      <Sheet title={t`The others`}>
        <ul className="grid gap-1">
          {page.people
            .filter((p) => !p.roles.includes('operator'))
            .map((p) => (
              <li key={p.id}>
                <strong>{p.name}</strong>, {p.roles.map((r) => roleWords[r].toLowerCase()).join(', ')}
              </li>
            ))}
        </ul>
        {page.contacts.length > 0 && (
          <p className="mt-3">{t`Told of defects: ${page.contacts.map((c) => t`${c.person.name}, in their place ${c.standIn.name}`).join('; ')}.`}</p>
        )}
      </Sheet>
    </div>
  )
}

function Person({
  person: p,
  page,
  gives,
  onKey,
}: {
  person: PersonLine
  page: PeoplePage
  gives: boolean
  onKey: (person: string, machine: string, give: boolean) => void
}) {
  const may = page.machines.filter((m) => impedimentsTo(p, m, today()).length === 0)
  return (
    <Sheet title={p.name}>
      <p className="mb-2 text-quiet">{t`Badge ${p.badge}. May take ${may.length} of ${page.machines.length} machines today.`}</p>
      <ul className="mb-3 flex flex-wrap gap-x-4 gap-y-1">
        {licenceExpiries(p, today()).map((x) => (
          <li
            key={x.class}
            className={x.state === 'expired' ? 'font-semibold text-outside' : x.state === 'soon' ? 'font-semibold text-near' : ''}
          >
            {choiceOf(x.class)} <span className="figure">{date(x.validUntil)}</span>
          </li>
        ))}
      </ul>
      <ul className="grid grid-cols-2 gap-1.5 sm:grid-cols-3" aria-label={t`Keys of ${p.name}`}>
        {page.machines.map((m) => {
          const has = p.authorised.includes(m.id)
          const lacks = impedimentsTo(p, m, today()).filter((b) => b.code !== 'not-authorised')
          const look = clsx(
            'min-h-12 w-full rounded-lg border-2 px-2 py-1 text-left leading-tight',
            has ? (lacks.length > 0 ? 'border-near' : 'border-ink bg-sunk') : 'border-dashed border-line text-quiet',
          )
          const inner = (
            <>
              <span className="font-semibold">{m.name}</span>
              <span className="block text-[0.82rem]">
                {has ? (lacks.length > 0 ? lackWords[lacks[0]?.code ?? ''] : t`has the key`) : t`no key`}
              </span>
            </>
          )
          return (
            <li key={m.id}>
              {gives ? (
                <button
                  type="button"
                  className={look}
                  aria-pressed={has}
                  aria-label={t`${has ? t`Withdraw` : t`Give`} the key to ${m.name}`}
                  onClick={() => onKey(p.id, m.id, !has)}
                >
                  {inner}
                </button>
              ) : (
                <div className={look}>{inner}</div>
              )}
            </li>
          )
        })}
      </ul>
    </Sheet>
  )
}
