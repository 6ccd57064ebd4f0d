import type { MachineFile } from '@geolabe/contract'
import { controlsAgainst } from '@geolabe/core'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { Sheet } from '../look/page'

/** The map of this machine's controls, what differs from the one last driven first in sight; and what each stop kills. */
export function Controls({ file }: { file: MachineFile }) {
  const { controls, stops } = file.definition
  if (controls.length === 0) return null
  const last = file.lastDriven
  const shown = controlsAgainst(controls, last && last.controls.length > 0 ? last.controls : null)
  const differ = shown.filter((c) => c.was !== null).length
  return (
    <div className="mt-4 grid gap-4 pb-4 md:grid-cols-2">
      <Sheet title={t`Controls of this machine`}>
        {last && (
          <p className="mb-2 text-quiet">
            {!shown.some((c) => !c.fresh)
              ? t`Nothing here is as on ${last.name}, which you drove before. Read it all.`
              : differ > 0
                ? t`${differ} differ from ${last.name}, which you drove before.`
                : t`What both have is alike on ${last.name}, which you drove before.`}
          </p>
        )}
        <ul className="grid gap-1">
          {shown.map((c) => (
            <li
              key={c.does}
              className={c.was ? 'border-l-4 border-accent bg-sunk py-1 pl-3' : 'border-l-4 border-transparent py-1 pl-3'}
            >
              <span className="font-semibold">{c.does}</span>: {c.by}
              {c.was && <span className="block text-[0.92rem] text-quiet">{t`There it was: ${c.was.toLowerCase()}`}</span>}
            </li>
          ))}
        </ul>
      </Sheet>
      {stops.length > 0 && (
        <Sheet title={t`Its stops`}>
          <ul className="grid gap-2">
            {stops.map((s) => (
              <li
                key={s.label}
                className="border-l-4 border-outside pl-3"
              >{rich`${<span className="font-semibold">{s.label}</span>} kills ${s.kills.toLowerCase()}. ${<span className="text-quiet">{t`To go on: ${s.reset.toLowerCase()}.`}</span>}`}</li>
            ))}
          </ul>
        </Sheet>
      )}
    </div>
  )
}
