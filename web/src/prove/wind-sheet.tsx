import { t } from '../language/t'
import { TolField } from '../look/field'
import { Tick } from '../look/tick'
import { withHung } from './draft'
import type { OutdoorDraft, SetOutdoor } from './outdoor-draft'

/** The gust at the load and what it catches; under a roof neither is asked. */
export function WindSheet({ draft, setDraft }: { draft: OutdoorDraft; setDraft: SetOutdoor }) {
  const { load } = draft.lift.hung
  return (
    <div className="grid gap-3">
      <Tick
        checked={draft.roofShut}
        onChange={(roofShut) => setDraft((d) => ({ ...d, roofShut }))}
        note={t`The whole way.`}
      >{t`Under a roof, doors shut`}</Tick>
      {!draft.roofShut && (
        <>
          <TolField
            label={t`Wind, gust at the load`}
            quantity="speed"
            value={draft.wind_mps}
            least={0}
            onChange={(wind_mps) => setDraft((d) => ({ ...d, wind_mps }))}
          />
          <TolField
            label={t`Sail area, its largest side`}
            quantity="area"
            value={load.windArea_m2}
            least={0}
            onChange={(windArea_m2) =>
              setDraft((d) => ({ ...d, lift: withHung(d.lift, { load: { ...d.lift.hung.load, windArea_m2 } }) }))
            }
          />
        </>
      )}
    </div>
  )
}
