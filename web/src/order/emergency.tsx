import { type EmergencyCard, emergencyCards } from '@geolabe/core'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import type { Order } from './use-order'

/** The cards of this machine: one touch tells it and shows what to do first. It asks nothing and refuses nothing. */
export function Emergency({ order, onCard }: { order: Order; onCard: (card: EmergencyCard) => void }) {
  const call = (card: EmergencyCard) => {
    onCard(card)
    void order.tell([{ do: 'emergency', card: card.label }])
  }
  return (
    <section aria-label={t`Emergency`}>
      <h3 className="mb-1 text-outside">{t`Emergency`}</h3>
      <div className="grid grid-cols-2 gap-2">
        {emergencyCards(order.file.emergency).map((card) => (
          <Button key={card.id} look="stop" className="min-h-14" onClick={() => call(card)}>
            {told(card.label)}
          </Button>
        ))}
      </div>
    </section>
  )
}

/** What is done first, in large letters. */
export const Card = ({ card }: { card: EmergencyCard }) => (
  <>
    <ol className="grid list-decimal gap-2 pl-7 text-xl font-semibold">
      {card.acts.map((a) => (
        <li key={a}>{told(a)}</li>
      ))}
    </ol>
    <p className="mt-4">{t`The machine is stopped for everyone until it has been examined. Called by mistake: the person in charge returns it.`}</p>
  </>
)

/** Which stop was pressed: what it kills and leaves moving is told at the order of work. */
export function StopPressed({ order, onDone }: { order: Order; onDone: () => void }) {
  const { stops } = order.file
  if (stops.length === 0) return null
  return (
    <section aria-label={t`A stop was pressed`}>
      <h3 className="mb-1">{t`A stop was pressed`}</h3>
      <div className="flex flex-wrap gap-2">
        {stops.map((s) => (
          <Button
            key={s.id}
            onClick={() => {
              onDone()
              void order.tell([{ do: 'stop-pressed', stop: s.id }])
            }}
          >
            {told(s.label)}
          </Button>
        ))}
      </div>
    </section>
  )
}
