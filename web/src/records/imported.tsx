import type { ImportedShift, Me } from '@geolabe/contract'
import { useState } from 'react'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { moreOf, useImported } from '../api/queries'
import { rich } from '../language/rich'
import { plural, t } from '../language/t'
import { FileButton } from '../look/file-button'
import { LongList } from '../look/long-list'
import { Loaded, Refused } from '../look/page'
import { when } from '../look/when'

/** Shifts that came as files from other installations: never among our own, always with who took them in and where they are from. */
export function Imported({ me }: { me: Me }) {
  const list = useImported()
  const may = me.roles.includes('person-in-charge') || me.roles.includes('administrator')
  return (
    <>
      <p className="mb-3 max-w-prose text-quiet">{t`Shifts that another yard exported and signed. Each is worked out again here; it is kept apart and never becomes one of this yard’s.`}</p>
      {may ? <TakeIn /> : <p className="mb-4 text-quiet">{t`The person in charge or an administrator takes files in.`}</p>}
      <Loaded query={list}>
        {(data) => {
          const shifts = data.pages.flatMap((p) => p.shifts)
          return shifts.length === 0 ? (
            <p className="text-quiet">{t`Nothing from elsewhere has been taken in.`}</p>
          ) : (
            <LongList
              label={t`Shifts from elsewhere, the latest first`}
              items={shifts}
              keyOf={(s) => s.id}
              row={(s) => <Row shift={s} />}
              estimate_px={120}
              more={moreOf(list)}
            />
          )
        }}
      </Loaded>
    </>
  )
}

function Row({ shift: s }: { shift: ImportedShift }) {
  return (
    <div className="grid gap-x-4 rounded-xl border-2 border-dashed border-edge bg-sheet px-4 py-3 sm:grid-cols-[8rem_1fr_auto]">
      <strong className="text-lg">{s.machine}</strong>
      <span>{rich`${s.operator} at ${s.place}, ${when(s.openedAt)}${<span className="block text-quiet">{t`Imported from ${s.from.organisation}${s.from.ours ? t`, signed here` : t`, signed by installation ${s.from.installation}`} · by ${s.importedBy.name}, ${when(s.importedAt)}`}</span>}${<span className={s.recomputes ? 'block text-quiet' : 'block font-bold text-outside'}>{s.recomputes ? t`Worked out again: every lift agrees.` : t`Worked out again, a lift does not agree. Do not rely on it.`}</span>}`}</span>
      <a className="figure self-center underline" href={`/api/imported-shifts/${s.id}`} download={`imported-${s.id}.json`}>
        {plural(s.lifts, { one: '# lift, the file', other: '# lifts, the file' })}
      </a>
    </div>
  )
}

/** All or nothing, as it was signed. */
function TakeIn() {
  const [error, setError] = useState<unknown>(null)
  const [done, setDone] = useState('')
  const take = async (file: File | undefined) => {
    if (!file) return
    setError(null)
    setDone('')
    try {
      const body: unknown = JSON.parse(await file.text())
      const { added } = await call<{ added: boolean }>({ method: 'POST', path: '/shift-files', body, key: newId() })
      setDone(added ? t`Taken in, and marked as from elsewhere.` : t`This file was taken in before; it stands as it was.`)
      void queryClient.invalidateQueries({ queryKey: ['imported'] })
    } catch (e) {
      setError(e instanceof SyntaxError ? new Error('This file is not JSON. Choose a shift that was exported from Geolabe.') : e)
    }
  }
  return (
    <div className="mb-4 grid gap-3">
      <FileButton accept="application/json,.json" onFile={(f) => void take(f)}>{t`Import a shift file`}</FileButton>
      <p role="status" className="font-semibold empty:hidden">
        {done}
      </p>
      <Refused error={error} />
    </div>
  )
}
