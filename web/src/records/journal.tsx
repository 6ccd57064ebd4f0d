import { kindWords as inEnglish } from '@geolabe/contract'
import { useState } from 'react'
import { type JournalFilter, moreOf, searchOf, useJournal, useJournalCheck, usePeople, useYard } from '../api/queries'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { DateField } from '../look/date-field'
import { SelectField, TextField } from '../look/field'
import { LongList } from '../look/long-list'
import { Loaded } from '../look/page'
import { when } from '../look/when'

const kindWords = Object.fromEntries(Object.entries(inEnglish).map(([kind, words]) => [kind, told(words)]))
const out = 'flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold'

/** Everything that was done, as it was written; searched, taken out as a file, and checked link by link. */
export function Journal() {
  const [filter, setFilter] = useState<JournalFilter>({})
  const [words, setWords] = useState('')
  const journal = useJournal(filter)
  const people = usePeople().data?.people ?? []
  const machines = useYard().data?.machines ?? []
  const [checking, setChecking] = useState(false)
  const check = useJournalCheck(checking)
  const set = (to: JournalFilter) => setFilter((f) => ({ ...f, ...to }))
  const search = searchOf(filter)
  const pick = (label: string, key: keyof JournalFilter, options: [string, string][]) => (
    <SelectField
      label={label}
      value={filter[key] ?? ''}
      onChange={(v) => set({ [key]: v })}
      options={[{ value: '', label: t`All` }, ...options.map(([value, text]) => ({ value, label: text }))]}
    />
  )
  return (
    <>
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <Button
          onClick={() => {
            setChecking(true)
            void check.refetch()
          }}
        >{t`Check the chain`}</Button>
        <p role="status" className={check.data && !check.data.intact ? 'font-bold text-outside' : ''}>
          {check.isFetching
            ? t`Following it from the first entry…`
            : check.data
              ? check.data.intact
                ? t`${check.data.entries} entries, each as it was written.`
                : t`Entry ${check.data.brokenAt} is not as it was written.`
              : t`Each entry carries the hash of the one before.`}
        </p>
      </div>
      <form
        className="mb-3 grid grid-cols-2 items-end gap-3 md:grid-cols-3 lg:grid-cols-6"
        onSubmit={(e) => {
          e.preventDefault()
          set({ words })
        }}
      >
        {pick(t`What`, 'kind', Object.entries(kindWords))}
        {pick(
          t`Machine`,
          'machine',
          machines.map((m) => [m.id, m.name]),
        )}
        {pick(
          t`Who`,
          'actor',
          people.map((p) => [p.id, p.name]),
        )}
        <DateField label={t`From`} value={filter.from || null} onChange={(from) => set({ from: from ?? '' })} />
        <DateField label={t`To`} value={filter.to || null} onChange={(to) => set({ to: to ?? '' })} />
        <TextField label={t`Words in it`} value={words} onChange={setWords} />
        <div className="col-span-full flex flex-wrap gap-2">
          <Button type="submit">{t`Search`}</Button>
          {search && (
            <Button
              look="quiet"
              onClick={() => {
                setFilter({})
                setWords('')
              }}
            >{t`Show all`}</Button>
          )}
          <a className={`${out} ml-auto`} href={`/api/exports/journal.csv?${search}`} download>{t`CSV`}</a>
          <a className={out} href={`/api/exports/journal.json?${search}`} download>{t`JSON`}</a>
        </div>
      </form>
      <Loaded query={journal}>
        {(data) => {
          const entries = data.pages.flatMap((p) => p.entries)
          if (entries.length === 0)
            return <p className="rounded-xl border border-line bg-sheet p-6 text-lg">{t`No entry like this.`}</p>
          return (
            <LongList
              label={t`Entries, the latest first`}
              items={entries}
              keyOf={(e) => String(e.seq)}
              row={(e) => (
                <div className="grid gap-x-4 rounded-lg border border-line bg-sheet px-4 py-2 sm:grid-cols-[4rem_12rem_1fr_9rem]">
                  <span className="figure text-quiet">{e.seq}</span>
                  <span className="text-quiet">{when(e.at)}</span>
                  <span className="min-w-0 break-words">
                    <strong>{kindWords[e.kind] ?? e.kind}</strong> {e.actor ? t`by ${e.actor.name}` : ''}{' '}
                    <span className="text-quiet" translate="no">
                      {summary(e.body)}
                    </span>
                  </span>
                  <span className="figure truncate text-[0.85rem] text-quiet" title={e.hash} translate="no">
                    {e.hash.slice(0, 12)}
                  </span>
                </div>
              )}
              estimate_px={46}
              more={moreOf(journal)}
            />
          )
        }}
      </Loaded>
    </>
  )
}

/** The few words of an entry that a reader looks for. */
function summary(body: Record<string, unknown>): string {
  return [
    'machine',
    'item',
    'result',
    'reading',
    'grade',
    'words',
    'verdict',
    'outcome',
    'reason',
    'hours',
    'calculator',
    'revision',
    'why',
  ]
    .map((k) => body[k])
    .filter((v) => (typeof v === 'string' && v !== '') || typeof v === 'number')
    .join(' · ')
}
