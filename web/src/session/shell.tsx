import type { Me, Shift } from '@geolabe/contract'
import clsx from 'clsx'
import { CircleUserRound } from 'lucide-react'
import { Popover } from 'radix-ui'
import { lazy, type ReactNode, Suspense, useEffect, useState } from 'react'
import { NavLink } from 'react-router'
import { call, get } from '../api/client'
import { become, queryClient } from '../api/me'
import { outbox, type RefusedWrite } from '../api/outbox'
import { useInstallation, useLive, useOutbox } from '../api/queries'
import { useHelpKey } from '../help/keys'
import { plural, t, told } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { SelectField } from '../look/field'
import { Refused } from '../look/page'
import { languages } from '../units/locale'
import { usePreferences } from '../units/units'
import { Wordmark } from './mark'

const Help = lazy(() => import('../help/help').then((m) => ({ default: m.Help })))

const places = [
  { to: '/', label: t`Yard` },
  { to: '/places', label: t`Places` },
  { to: '/defects', label: t`Defects` },
  { to: '/due', label: t`Due` },
  { to: '/tables', label: t`Tables` },
  { to: '/calculators', label: t`Calculators` },
  { to: '/practice', label: t`Practice`, wideOnly: true },
  { to: '/records', label: t`Records` },
]

export function Shell({ me, children }: { me: Me; children: ReactNode }) {
  const [help, setHelp] = useState(false)
  useLive(true)
  // Known from the sign-on on: a second person may be wanted where there is no network.
  useInstallation()
  const owner = `${me.organisation.id}/${me.id}`
  useEffect(() => void outbox.begin(owner), [owner])
  useHelpKey(() => setHelp(true))
  return (
    <div className="group flex min-h-dvh flex-col roomy:has-[[data-station]]:h-dvh">
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-accent focus:p-3 focus:text-on-accent"
      >{t`To the content`}</a>
      <header className="border-b border-line bg-paper">
        <div className="mx-auto flex max-w-6xl flex-wrap items-center gap-x-1 px-4 group-has-[[data-station]]:max-w-none">
          <NavLink
            to="/"
            className="mr-auto flex min-h-14 items-center max-sm:[&_span]:text-[0px]"
            aria-label={t`Geolabe, to the Yard`}
          >
            <Wordmark />
          </NavLink>
          <nav
            aria-label={t`Places`}
            className="flex max-sm:order-last max-sm:w-full max-sm:flex-wrap max-sm:justify-between max-sm:group-has-[[data-station]]:hidden"
          >
            {places.map((p) => (
              <NavLink
                key={p.to}
                to={p.to}
                end={p.to === '/'}
                className={({ isActive }) =>
                  clsx(
                    // A phone has room for seven; the yard leads to the rest.
                    'wideOnly' in p && 'max-sm:hidden',
                    'flex min-h-14 items-center border-b-4 px-3 font-semibold max-sm:min-h-12 max-sm:px-0 max-sm:text-[0.84rem]',
                    isActive ? 'border-accent' : 'border-transparent text-quiet',
                  )
                }
              >
                {p.label}
              </NavLink>
            ))}
          </nav>
          <PersonMenu me={me} onHelp={() => setHelp(true)} />
        </div>
      </header>
      <Sending />
      <main
        id="content"
        className="mx-auto flex w-full max-w-6xl grow flex-col px-4 pt-5 has-[[data-station]]:max-w-none roomy:has-[[data-station]]:min-h-0"
      >
        {children}
      </main>
      {help && (
        <Suspense>
          <Help open onClose={() => setHelp(false)} />
        </Suspense>
      )}
    </div>
  )
}

/** The frame of what needs no sign-on: the calculators. */
export function Open({ children }: { children: ReactNode }) {
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="border-b border-line bg-paper">
        <div className="mx-auto flex max-w-6xl items-center px-4">
          <a href="/" className="mr-auto flex min-h-14 items-center" aria-label={t`Geolabe, to sign on`}>
            <Wordmark />
          </a>
          <NavLink
            to="/calculators"
            className="flex min-h-14 items-center border-b-4 border-accent px-3 font-semibold"
          >{t`Calculators`}</NavLink>
        </div>
      </header>
      <main id="content" className="mx-auto flex w-full max-w-6xl grow flex-col px-4 pt-5">
        {children}
      </main>
    </div>
  )
}

/** What is on its way to the records, and what keeps it. */
function Sending() {
  const { waiting, stuck, refused } = useOutbox()
  return (
    <div aria-live="polite">
      {stuck && waiting.length > 0 && (
        <div className="border-b-2 border-unproven bg-sheet">
          <div className="h-1.5 hatch-unproven" />
          <p className="mx-auto max-w-6xl px-4 py-2">
            <strong>
              {plural(waiting.length, {
                one: '# entry is kept on this device, not yet in the records.',
                other: '# entries are kept on this device, not yet in the records.',
              })}
            </strong>{' '}
            {stuck}
          </p>
        </div>
      )}
      {refused.map((r) => (
        <RefusedEntry key={r.key} entry={r} />
      ))}
    </div>
  )
}

/** What somebody entered, or the part of it that reads alone. */
function entryWords(body: unknown): string {
  if (typeof body !== 'object' || body === null) return t`An entry`
  const b = body as Record<string, unknown>
  return [b.item, b.result, b.reading, b.where, b.words].filter((v) => typeof v === 'string' || typeof v === 'number').join(' · ')
}

/** Refused while the page was away: told, and kept until somebody has decided. */
function RefusedEntry({ entry: r }: { entry: RefusedWrite }) {
  const [error, setError] = useState<unknown>(null)
  const again = async () => {
    setError(null)
    try {
      // What the other device said has been read here: this one stands.
      const b = r.body as Record<string, unknown>
      const now = r.code === 'entered-elsewhere' ? await get<Shift>(`/shifts/${r.params.shift}`) : null
      const other = now?.inspections.find((i) => i.id === b.inspection)?.entries.find((e) => e.item === b.item)
      await outbox.decide(r.key, { body: other ? { ...b, replaces: other.at } : b })
      void queryClient.invalidateQueries()
    } catch (e) {
      setError(e)
    }
  }
  return (
    <div className="border-b-2 border-outside bg-sheet">
      <div className="h-1.5 hatch-outside" />
      <div className="mx-auto flex max-w-6xl flex-wrap items-center gap-3 px-4 py-2">
        <p className="grow">
          <strong>{t`Not taken into the records:`}</strong> {entryWords(r.body)}. {told(r.why)}
        </p>
        <Button onClick={() => void again()}>{r.code === 'entered-elsewhere' ? t`Mine stands` : t`Send it again`}</Button>
        <Button look="quiet" onClick={() => void outbox.decide(r.key, null)}>{t`Let it go`}</Button>
        <Refused error={error} />
      </div>
    </div>
  )
}

function PersonMenu({ me, onHelp }: { me: Me; onHelp: () => void }) {
  const { units, light, language, setUnits, setLight, setLanguage } = usePreferences()
  const { waiting } = useOutbox()
  const signOff = async () => {
    await call({ method: 'DELETE', path: '/session' })
    become(null)
  }
  return (
    <Popover.Root>
      <Popover.Trigger
        className="flex min-h-14 items-center gap-2 px-2 font-semibold"
        aria-label={t`${me.name}: choices and sign off`}
      >
        <CircleUserRound aria-hidden="true" />
        <span className="max-md:sr-only">{me.name}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-40 grid w-72 gap-4 rounded-xl border-2 border-ink bg-paper p-4"
          aria-label={t`Choices`}
        >
          <p>
            <span className="block font-bold">{me.name}</span>
            <span className="text-quiet">{me.organisation.name}</span>
          </p>
          <Choice
            label={t`Light`}
            value={light}
            onChange={setLight}
            options={[
              { value: 'day', label: t`Day` },
              { value: 'night', label: t`Night` },
            ]}
          />
          <Choice
            label={t`Units`}
            value={units}
            onChange={setUnits}
            options={[
              { value: 'metric', label: t`Metric` },
              { value: 'us', label: 'US' },
            ]}
          />
          <SelectField
            label={t`Dates and figures`}
            value={languages.some((l) => l.value === language) ? language : 'en-GB'}
            options={languages}
            onChange={setLanguage}
          />
          {/* At a station a phone has no room for them above. */}
          <nav aria-label={t`Other places`} className="grid grid-cols-2 sm:hidden">
            {places.map((p) => (
              <Popover.Close asChild key={p.to}>
                <NavLink to={p.to} className="flex min-h-12 items-center font-semibold underline underline-offset-4">
                  {p.label}
                </NavLink>
              </Popover.Close>
            ))}
          </nav>
          <Popover.Close asChild>
            <NavLink
              to="/people"
              className="flex min-h-12 items-center font-semibold underline underline-offset-4"
            >{t`Who may: licences and keys`}</NavLink>
          </Popover.Close>
          <Popover.Close asChild>
            <NavLink
              to="/policies"
              className="flex min-h-12 items-center font-semibold underline underline-offset-4"
            >{t`Site policies`}</NavLink>
          </Popover.Close>
          <Button look="quiet" onClick={onHelp}>{t`Keys and help`}</Button>
          {waiting.length > 0 && (
            <p className="font-semibold text-unproven">
              {plural(waiting.length, {
                one: '# entry is not in the records yet. They stay on this device and are sent when you sign on here again.',
                other: '# entries are not in the records yet. They stay on this device and are sent when you sign on here again.',
              })}
            </p>
          )}
          <Button onClick={() => void signOff()} className="justify-center">{t`Sign off`}</Button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
