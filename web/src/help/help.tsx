import { Dialog } from '../look/dialog'

const keys: [string, string][] = [
  ['?', 'This list'],
  ['/', 'Calculators: search'],
  ['O', 'Walk-round: in order'],
  ['D', 'Walk-round: defect'],
  ['N', 'Walk-round: not fitted'],
  ['M', 'Walk-round: to the reading'],
  ['B', 'Walk-round: back one item'],
  ['↑ ↓', 'On a point of the dial: radius, 0.1 m (with Shift 1 m)'],
  ['← →', 'On a point of the dial: slew, 1° (with Shift 10°)'],
  ['Tab, Space, Enter', 'Through everything, tick, press'],
]

const published = [
  ['/api/calc', 'every calculator with its schemas'],
  ['/schemas/table.json', 'schema of tables'],
  ['/schemas/machine.json', 'of machines'],
  ['/schemas/shift.json', 'of shifts'],
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
    <Dialog open={open} onClose={onClose} title="Keys and help">
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
        {keys.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="figure font-semibold">{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-5">
        For scripts: <ExternalList />
      </p>
      <p className="mt-5 text-quiet">
        Geolabe is an aid. It says “inside the limits checked” and lists what was not checked. The machine’s own table, plate and
        manual, local law, and a competent, licensed person decide. Anyone may stop the work.
      </p>
    </Dialog>
  )
}
