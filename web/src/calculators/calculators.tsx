import { calculatorGroups } from '@geolabe/core'
import { Search } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { typing } from '../help/keys'
import { calculatorWords } from '../language/calculator-words'
import { t, told } from '../language/t'
import { Title } from '../look/page'

const listed = calculatorGroups.map((g) => ({
  ...g,
  label: told(g.label),
  entries: g.calculators.map((c) => ({
    name: c.name,
    purpose: told(c.purpose),
    ...calculatorWords(c),
  })),
}))

/** Every calculator in the order of the work; / to search. */
export function Calculators() {
  const [asked, setAsked] = useState('')
  const box = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.key !== '/' || typing(e)) return
      e.preventDefault()
      box.current?.focus()
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [])
  const words = asked.toLowerCase().split(/\s+/).filter(Boolean)
  const fits = (e: (typeof listed)[number]['entries'][number]) =>
    words.every((w) => `${e.name} ${e.title} ${e.purpose} ${e.also}`.toLowerCase().includes(w))
  const shown = listed.map((g) => ({ ...g, entries: g.entries.filter(fits) })).filter((g) => g.entries.length > 0)
  const first = shown[0]?.entries[0]
  return (
    <>
      <Title
        below={t`Each one computes at every change, says what it rests on, and works without a network.`}
      >{t`Calculators`}</Title>
      <form
        className="relative mb-5"
        role="search"
        onSubmit={(e) => {
          e.preventDefault()
          if (first) navigate(`/calculators/${first.name}`)
        }}
      >
        <Search className="pointer-events-none absolute top-1/2 left-3 -translate-y-1/2 text-quiet" aria-hidden="true" />
        <input
          ref={box}
          className="field pl-11 text-lg"
          type="search"
          aria-label={t`Search the calculators, press / to come here`}
          placeholder={t`sling, mat, tipping, wind …`}
          value={asked}
          onChange={(e) => setAsked(e.target.value)}
        />
      </form>
      <p className="sr-only" aria-live="polite">
        {asked ? t`${shown.reduce((n, g) => n + g.entries.length, 0)} found` : ''}
      </p>
      {shown.length === 0 && <p className="text-lg">{t`Nothing here is called that. Try another word for it.`}</p>}
      <div className="grid gap-6 pb-8">
        {shown.map((g) => (
          <section key={g.id} aria-label={g.label}>
            <h2 className="mb-2">{g.label}</h2>
            <ul className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
              {g.entries.map((e) => (
                <li key={e.name}>
                  <Link
                    to={`/calculators/${e.name}`}
                    className="block h-full min-h-16 rounded-lg border-2 border-edge bg-sheet px-3.5 py-2.5 hover:border-ink"
                  >
                    <span className="block text-[1.08rem] font-bold">{e.title}</span>
                    <span className="block text-[0.92rem] leading-snug text-quiet">{e.purpose}</span>
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </>
  )
}
