import { type RaiseDefectRequest, type Shift, type Station, stopsMachine } from '@geolabe/contract'
import type { DefectPolicy, Place } from '@geolabe/core'
import { Link, Navigate, Outlet, useLocation, useParams } from 'react-router'
import type { Waiting } from '../api/outbox'
import { useMachine, useOutbox, usePlaces, useShift } from '../api/queries'
import { Incident } from '../incident/incident'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { Loaded } from '../look/page'
import type { ShiftContext } from '../order/context'
import { RouteLine, stationStates, stationsOf } from './route-line'
import { useShownShift } from './shown-shift'

/** The frame of a shift: the route, always on screen, and the station below it. */
export function ShiftFrame() {
  const { id = '' } = useParams()
  const shift = useShift(id)
  const places = usePlaces()
  return (
    <Loaded query={shift}>{(s) => <Loaded query={places}>{(p) => <WithMachine shift={s} places={p.places} />}</Loaded>}</Loaded>
  )
}

function WithMachine({ shift: recorded, places }: { shift: Shift; places: Place[] }) {
  const shift = useShownShift(recorded)
  const file = useMachine(shift.machine.id)
  const own = stopsFromHere(useOutbox().waiting, shift.machine.id, file.data?.definition.defectPolicy)
  const last = useLocation().pathname.split('/')[3] ?? 'walk-round'
  const here = (last === 'inspections' ? 'walk-round' : last) as Station
  const place = places.find((p) => p.id === shift.place.id)
  if (shift.closedAt) return <Navigate to={`/records/${shift.id}`} replace />
  return (
    <Loaded query={file}>
      {(f) => (
        <>
          <div className="mx-[calc(50%-50vw)] -mt-5 mb-3">
            <div className="flex items-center gap-2 border-b border-line pr-4">
              <RouteLine
                stations={stationsOf(f.definition)}
                states={stationStates(shift, f.definition, f.stopping.length > 0 || own !== undefined)}
                here={here}
                linkTo={(s) => `/shifts/${shift.id}/${s}`}
              />
              {place && <Incident shift={shift} file={f} place={place} />}
            </div>
            {own && f.stopping.length === 0 && (
              <div role="alert" className="border-b-2 border-outside bg-sheet">
                <div className="h-2.5 hatch-outside" />
                <p className="mx-auto max-w-6xl px-4 py-2.5">{rich`${<strong className="text-outside">{t`You stopped ${shift.machine.name}.`}</strong>} ${own.where}: ${own.words}. It is kept on this device and stops the machine for everyone once the records have it. Make it stand without risk; tag it; nothing is lifted.`}</p>
              </div>
            )}
            {f.stopping[0] && (
              <div role="alert" className="border-b-2 border-outside bg-sheet">
                <div className="h-2.5 hatch-outside" />
                <p className="mx-auto max-w-6xl px-4 py-2.5">{rich`${<strong className="text-outside">{t`${shift.machine.name} is stopped.`}</strong>} ${f.stopping[0].where}: ${f.stopping[0].words}. Make it stand without risk; nothing is lifted until the person in charge returns it. ${<Link className="font-semibold underline underline-offset-4" to={`/defects/${f.stopping[0].id}`}>{t`See the defect`}</Link>}`}</p>
              </div>
            )}
          </div>
          {place ? (
            <Outlet context={{ shift, file: f, place } satisfies ShiftContext} />
          ) : (
            <p>{t`This shift’s place is not in the records.`}</p>
          )}
        </>
      )}
    </Loaded>
  )
}

/** A defect that stops this machine and is still on its way from this device: whoever entered it does not work on. */
export function stopsFromHere(
  waiting: readonly Waiting[],
  machine: string,
  policy: DefectPolicy | undefined,
): RaiseDefectRequest | undefined {
  return waiting
    .filter((w) => w.what === 'raise-defect')
    .map((w) => w.body as RaiseDefectRequest)
    .find((d) => d.machine === machine && (stopsMachine(d.grade) || policy === 'stops-until-graded'))
}
