import { isReadByChart, machineModel, ratingTable, sameAxes, type TableAxes } from '@geolabe/core'
import { useEffect, useState } from 'react'
import { useTable, useTables } from '../api/queries'
import { t } from '../language/t'
import { type Fields, Frame } from './figure'
import { isObj, type Json } from './schema'

/** Tables of the yard, as far as this device has them; the worked example’s own stays among them. */
export function TablePicker(p: Fields) {
  const list = useTables()
  const [asked, setAsked] = useState<string | null>(null)
  const file = useTable(asked)
  const { onChange } = p
  const got = file.data?.table
  useEffect(() => {
    if (got) {
      onChange(got as unknown as Json)
      setAsked(null)
    }
  }, [got, onChange])
  const now = isObj(p.value) ? p.value : {}
  const known = ratingTable.safeParse(p.value)
  const fitting = (list.data?.tables ?? []).filter((t) => t.id === now.id || (known.success && sameUse(known.data.axes, t.axes)))
  return (
    <Frame
      label={t`Table`}
      fault={p.fault?.path.startsWith(p.path) ? p.fault.message : known.success ? null : t`This is no table.`}
    >
      {(id) => (
        <select id={id} className="field" value={String(now.id ?? '')} onChange={(e) => setAsked(e.target.value)}>
          {!fitting.some((t) => t.id === now.id) && (
            <option value={String(now.id ?? '')}>{String(now.title ?? t`The example`)}</option>
          )}
          {fitting.map((t) => (
            <option key={t.id} value={t.id}>
              {t.title}
            </option>
          ))}
        </select>
      )}
    </Frame>
  )
}

const sameUse = (a: TableAxes, b: TableAxes) => sameAxes(a, b) || (isReadByChart(a) && isReadByChart(b))

export function ModelPicker(p: Fields) {
  const list = useTables()
  const [asked, setAsked] = useState<string | null>(null)
  const file = useTable(asked)
  const { onChange } = p
  const got = file.data?.model
  useEffect(() => {
    if (got) {
      onChange(got as unknown as Json)
      setAsked(null)
    }
  }, [got, onChange])
  const known = machineModel.safeParse(p.value)
  const now = known.success ? known.data.id : ''
  const others = list.data?.tables ?? []
  return (
    <Frame label={t`Machine’s geometry`} fault={p.fault?.path.startsWith(p.path) ? p.fault.message : null}>
      {(id) => (
        <select
          id={id}
          className="field"
          value={others.find((t) => t.machine === now)?.id ?? ''}
          onChange={(e) => setAsked(e.target.value)}
        >
          {!others.some((t) => t.machine === now) && <option value="">{known.success ? known.data.name : t`The example`}</option>}
          {others.map((t) => (
            <option key={t.id} value={t.id}>
              {t.machineName}
            </option>
          ))}
        </select>
      )}
    </Frame>
  )
}
