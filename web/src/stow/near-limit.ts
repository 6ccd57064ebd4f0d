import type { MachineFile, Shift } from '@geolabe/contract'
import { itemsOf, judge, type Machine, measureLabel, measureUnit, readingTrend } from '@geolabe/core'

/** Readings near their limit: this shift's where it took one, else the last on record. */
export function nearLimitNow(machine: Machine, shift: Shift, readings: MachineFile['readings']) {
  return itemsOf(machine.walkround).flatMap(({ item }) => {
    const own = shift.walk.marks.find((m) => m.item === item.id)?.reading
    const earlier = readings[item.id] ?? []
    const last = own ?? earlier.at(-1)?.value
    if (!item.measure || last === undefined || last === null) return []
    if (judge(item.measure, last).verdict === 'ok') return []
    const trend = readingTrend(item.measure, earlier)
    return [
      {
        label: `${item.label}, ${measureLabel(item.measure).toLowerCase()}`,
        reading: last,
        unit: measureUnit(item.measure),
        limit: trend.limit ?? 0,
        reaches: trend.reaches,
      },
    ]
  })
}
