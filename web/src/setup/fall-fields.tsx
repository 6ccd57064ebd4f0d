import type { Standing, Tol } from '@geolabe/core'
import { t } from '../language/t'
import { TolField } from '../look/field'

type Fall = Extract<Standing, { on: 'towers' }>['fall']

/** A figure in per cent is edited as the share that it is. */
const scaled = (v: Tol | null, by: number): Tol | null =>
  v === null ? null : typeof v === 'number' ? v * by : { value: v.value * by, tolerance: v.tolerance * by }
const toShare = (v: Tol | null) => scaled(v, 1 / 100)
const round = (x: number) => Math.round(x * 1e6) / 1e6
const toPct = (v: Tol | null): Tol | null => {
  const p = scaled(v, 100)
  return p === null || typeof p === 'number' ? p && round(p) : { value: round(p.value), tolerance: round(p.tolerance) }
}

/** How far what it stands on falls, along and across. */
export function FallFields({ fall, onChange }: { fall: Fall; onChange: (to: Fall) => void }) {
  return (
    <>
      <TolField
        label={t`Rise along, front high is plus`}
        quantity="share"
        value={toShare(fall.along_pct)}
        onChange={(v) => onChange({ ...fall, along_pct: toPct(v) })}
      />
      <TolField
        label={t`Rise across, left high is plus`}
        quantity="share"
        value={toShare(fall.cross_pct)}
        onChange={(v) => onChange({ ...fall, cross_pct: toPct(v) })}
      />
    </>
  )
}

export const unread: Fall = { along_pct: null, cross_pct: null }
export const isUnread = ({ along_pct, cross_pct }: Fall) => along_pct === null || cross_pct === null
