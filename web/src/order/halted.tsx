import { t, told } from '../language/t'
import { Button } from '../look/button'
import type { Order } from './use-order'

/** A stop that is pressed, with what still moves and how it is reset; or the end of the order. */
export function Halted({ order }: { order: Order }) {
  const { world, file } = order
  if (world.ended)
    return (
      <p role="alert" className="border-l-4 border-outside pl-3 font-semibold">
        {t`Emergency was called: nothing more is done with it until it has been examined and taken back. Leave it as it stands.`}
      </p>
    )
  if (world.symptom)
    return (
      <p role="alert" className="border-l-4 border-near pl-3 font-semibold">
        {t`“${told(world.symptom.symptom)}” is being followed: until it is at its end, only bring it back to safety.`}
      </p>
    )
  return file.stops
    .filter((s) => world.stops.includes(s.id))
    .map((s) => (
      <section key={s.id} role="alert" aria-label={told(s.label)} className="rounded-lg border-2 border-outside p-3">
        <h2 className="text-lg font-bold">{t`${told(s.label)} is pressed`}</h2>
        <p className="mt-1 font-semibold">{t`What still moves`}</p>
        <ul className="list-disc pl-5">
          {s.stillMoves.map((m) => (
            <li key={m}>{told(m)}</li>
          ))}
        </ul>
        <p className="mt-1 font-semibold">{t`To reset, in this order, once you know why`}</p>
        <ol className="list-decimal pl-5">
          {s.reset.map((r) => (
            <li key={r}>{told(r)}</li>
          ))}
        </ol>
        <Button className="mt-2" onClick={() => void order.tell([{ do: 'reset', stop: s.id }])}>{t`Reset, in that order`}</Button>
      </section>
    ))
}
