import type { Me } from '@geolabe/contract'
import type { Place } from '@geolabe/core'
import { Navigate, useNavigate, useParams, useSearchParams } from 'react-router'
import { usePlaces } from '../api/queries'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { Loaded } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { AtWorkMap, AtWorkSheet, usePair } from './at-work'
import { DrawMap, DrawSheet, useDraw } from './draw'
import { AnswerList, useWhichMachine, WantedSheet, WhichMap } from './which-machine'

const tabs = ['which', 'now', 'draw'] as const
type Tab = (typeof tabs)[number]

/** A place: which machine for a lift there, and what works there now. */
export function PlacePage({ me }: { me: Me }) {
  const { id } = useParams()
  return (
    <Loaded query={usePlaces()}>
      {({ places }) => {
        const place = places.find((p) => p.id === id)
        const [first] = places
        if (place) return <Shown key={place.id} me={me} place={place} places={places} />
        return first ? <Navigate to={`/places/${first.id}`} replace /> : <p>{t`No place is on record.`}</p>
      }}
    </Loaded>
  )
}

function Shown({ me, place, places }: { me: Me; place: Place; places: readonly Place[] }) {
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const asked = params.get('tab')
  const tab: Tab = tabs.find((x) => x === asked) ?? 'which'
  const which = useWhichMachine(place)
  const [pair, setPair] = usePair()
  const draw = useDraw(place, me.id)
  const where = (
    <select
      aria-label={t`Place`}
      className="field font-bold"
      value={place.id}
      onChange={(e) => navigate(`/places/${e.target.value}${asked ? `?tab=${asked}` : ''}`)}
    >
      {places.map((p) => (
        <option key={p.id} value={p.id}>
          {p.name}
        </option>
      ))}
    </select>
  )
  return (
    <Station
      title={t`Places`}
      head={where}
      first="drawing"
      drawing={
        tab === 'now' ? (
          <AtWorkMap place={place} pair={pair} />
        ) : tab === 'draw' ? (
          <DrawMap draw={draw} />
        ) : (
          <WhichMap place={place} which={which} />
        )
      }
      {...(tab === 'which' ? { list: <AnswerList which={which} /> } : {})}
      sheet={
        <Sheets
          label={t`What is asked of this place`}
          open={tab}
          onOpen={(to) => setParams({ tab: to }, { replace: true })}
          tabs={[
            {
              id: 'which',
              name: t`Which machine`,
              body: <WantedSheet place={place} which={which} />,
            },
            {
              id: 'now',
              name: t`At work now`,
              body: <AtWorkSheet place={place} pair={pair} onPair={setPair} />,
            },
            {
              id: 'draw',
              name: t`Draw`,
              verdict: draw.waiting ? 'not-proven' : null,
              body: <DrawSheet draw={draw} />,
            },
          ]}
        />
      }
      {...(tab === 'which'
        ? {
            why: t`Nothing is recorded by asking.`,
            actions: (
              <Button look="next" disabled={which.busy !== null} onClick={() => void which.ask()}>
                {which.busy === 'yard' ? t`Asking the yard …` : t`Ask the yard`}
              </Button>
            ),
          }
        : {})}
      {...(tab === 'draw' && draw.draft
        ? {
            why: draw.fault
              ? told(draw.fault.words)
              : draw.draft.why.trim() === ''
                ? t`Say why it is drawn anew.`
                : t`It counts once a second person has checked it.`,
            actions: (
              <Button
                look="next"
                disabled={draw.overtaken || draw.fault !== null || draw.draft.why.trim() === '' || draw.changes.length === 0}
                onClick={() => void draw.send()}
              >{t`Send it to be checked`}</Button>
            ),
          }
        : {})}
    />
  )
}
