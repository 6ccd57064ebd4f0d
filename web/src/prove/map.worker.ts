import {
  type Case,
  emptyMap,
  fillMap,
  type MapZone,
  mapOfCase,
  nearShareOf,
  prepareMap,
  probe,
  Refusal,
  workingAreaZones,
  zonesBetween,
} from '@geolabe/core'

export interface MapQuestion {
  id: number
  case: Case
  radii_m: number[]
  slews_deg: number[]
}

export interface MapAnswer {
  id: number
  /** Null: the load's mass is not known, or the machine does not fit its plan. */
  zones: (MapZone | null)[] | null
}

/** Slews worked out before looking whether somebody has asked anew. */
const slice = 60
let newest = 0

const pause = () => new Promise<void>((go) => setTimeout(go, 0))

async function work(q: MapQuestion): Promise<void> {
  try {
    const input = mapOfCase(q.case, q.radii_m, q.slews_deg)
    if (!input) {
      self.postMessage({ id: q.id, zones: null } satisfies MapAnswer)
      return
    }
    const prepared = prepareMap(input)
    const map = emptyMap(prepared)
    for (let j = 0; j < map.slews; j += slice) {
      fillMap(prepared, map, j, Math.min(map.slews, j + slice))
      await pause()
      if (q.id !== newest) return
    }
    const answer: MapAnswer = {
      id: q.id,
      zones: zonesBetween(workingAreaZones(map, q.radii_m, q.slews_deg, nearShareOf(q.case), probe(prepared))),
    }
    self.postMessage(answer)
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    self.postMessage({ id: q.id, zones: null } satisfies MapAnswer)
  }
}

/** The map round the machine, beside the page; a question that has been overtaken is left where it is. */
self.onmessage = ({ data }: MessageEvent<MapQuestion>) => {
  newest = data.id
  void work(data)
}
