import { t } from '../language/t'

/** An outrigger, or a place on a part, by its name. */
export interface Choice {
  id: string
  label: string
}

/** Outriggers or places by their names, for who would rather not touch the picture. */
export function WhichPlace({
  places,
  at,
  onChoose,
}: {
  places: readonly Choice[]
  at: string | null
  onChoose: (id: string) => void
}) {
  return (
    <fieldset>
      <legend className="mb-1 font-bold">{t`Where? Touch it, or choose.`}</legend>
      <div className="grid grid-cols-2 gap-1.5 sm:grid-cols-4">
        {places.map((o) => (
          <button
            key={o.id}
            type="button"
            aria-pressed={at === o.id}
            className={`min-h-12 rounded-lg border-2 px-2 py-1 font-semibold first-letter:uppercase ${at === o.id ? 'border-ink bg-ink text-paper' : 'border-edge bg-paper'}`}
            onClick={() => onChoose(o.id)}
          >
            {o.label}
          </button>
        ))}
      </div>
    </fieldset>
  )
}
