import { t } from '../language/t'
import { Dialog } from '../look/dialog'

const keys: [string, string][] = [
  ['?', t`This list`],
  ['/', t`Calculators: search`],
  ['O', t`Walk-round: in order`],
  ['D', t`Walk-round: defect`],
  ['N', t`Walk-round: not fitted`],
  ['M', t`Walk-round: to the reading`],
  ['B', t`Walk-round: back one item`],
  ['↑ ↓', t`On a point of the dial: radius, 0.1 m (with Shift 1 m)`],
  ['← →', t`On a point of the dial: slew, 1° (with Shift 10°)`],
  [t`Tab, Space, Enter`, t`Through everything, tick, press`],
]

const published = [
  ['/api/calc', t`every calculator with its schemas`],
  ['/schemas/table.json', t`schema of tables`],
  ['/schemas/machine.json', t`of machines`],
  ['/schemas/shift.json', t`of shifts`],
] as const

function ExternalList() {
  return (
    <>
      {published.map(([href, words], i) => (
        <span key={href}>
          {i > 0 && ', '}
          <a className="underline decoration-edge decoration-2 underline-offset-4" href={href}>
            {words}
          </a>
        </span>
      ))}
      .
    </>
  )
}

export function Help({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title={t`Keys and help`}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
        {keys.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="figure font-semibold">{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-5">
        {t`For scripts:`} <ExternalList />
      </p>
      <p className="mt-5 text-quiet">{t`Geolabe is an aid. It says “inside the limits checked” and lists what was not checked. The machine’s own table, plate and manual, local law, and a competent, licensed person decide. Anyone may stop the work.`}</p>
    </Dialog>
  )
}
