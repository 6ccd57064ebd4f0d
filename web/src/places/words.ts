import type { Assumed, Effort, Part, Say, Unable } from '@geolabe/core'
import { plural, t, told } from '../language/t'

/** Why a machine was not even tried. */
export function unableWords(u: Unable, say: Say): string {
  switch (u.reason) {
    case 'out-of-reach':
      return t`It reaches ${say('length', u.most_m)}; from its nearest stand this takes ${say('length', u.radius_m)}.`
    case 'too-near':
      return t`Its boom does not come in to ${say('length', u.radius_m)}.`
    case 'no-pose':
      return t`No pose of its booms holds the load high enough there.`
    case 'too-heavy':
      return t`Nothing in its tables is rated over ${say('mass', u.most_kg)}.`
    case 'too-high':
      return t`It raises a load to ${say('length', u.most_m)} there, and no higher.`
    case 'too-low':
      return t`It takes nothing up from below ${say('length', u.least_m)}.`
    case 'no-room':
      return t`No room to stand: ${u.label} against ${u.inTheWay}.`
    case 'no-stand':
      return t`It has nowhere to stand here.`
    case 'under-its-beam':
      return t`It hangs under its own beam; this load does not.`
    case 'straight-up':
      return t`Its track is ${say('length', u.track_m)} long.`
    case 'off-its-track':
      return t`The load does not stand on its track.`
    case 'no-way':
      return t`As this place is drawn, no way is wide enough for it.`
    case 'no-hull':
      return t`It lifts hulls in slings; no hull was described.`
    case 'not-provable':
      return t`Too little is known of it to prove anything.`
    case 'refused':
      return told(u.words)
  }
}

/** What has to be done for it. */
export function effortWords(e: Effort, say: Say): string {
  switch (e.work) {
    case 'feet':
      return plural(e.count, { one: '# foot set out', other: '# feet set out' })
    case 'mats':
      return plural(e.count, { one: '# mat laid', other: '# mats laid' })
    case 'counterweight':
      return t`counterweight: ${e.label}`
    case 'boom':
      return t`boom made up to ${say('length', e.boom_m)}`
    case 'reeve':
      return plural(e.parts, { one: 'reeved in # part', other: 'reeved in # parts' })
    case 'tool':
      return t`tool: ${e.label}`
    case 'slabs':
      return plural(e.count, { one: '# slab', other: '# slabs' })
    case 'towers':
      return plural(e.count, { one: '# tower stood', other: '# towers stood' })
    case 'slings':
      return plural(e.count, { one: '# sling laid', other: '# slings laid' })
    case 'drive':
      return t`${say('length', e.way_m)} driven`
    case 'close':
      return t`${e.label} closed`
  }
}

/** What was taken as done; each of it is asked for again when the machine is set up. */
export function assumedWords(a: Assumed, say: Say): string {
  switch (a.what) {
    case 'confirmed':
      return a.label
    case 'level':
      return t`Level, by a bubble that was proved`
    case 'radius-measured':
      return t`Radius measured with the load hanging`
    case 'display':
      return t`Display set to what is fitted`
    case 'battery':
      return t`Battery as heavy as its plate asks`
    case 'signals':
      return t`A signaller named, signals agreed`
    case 'tyres':
      return t`Tyres looked at`
    case 'aligned':
      return t`Panel shows both hoists aligned`
    case 'papers':
      return t`Papers of its base in date`
    case 'marks':
      return t`Marks on hoist, trolley, beam and hook read as they are on file`
    case 'towers-at':
      return t`Headers ${say('length', a.apart_m)} apart, towers ${say('length', a.wide_m)}, one point a header`
    case 'slings-at':
      return t`Slings ${say('length', a.apart_m)} apart`
    case 'driven':
      return t`Driven at ${say('speed', a.speed_mps)} at most, on a dry floor`
    case 'operator-rides':
      return t`${say('mass', a.mass_kg)} rides up with it`
  }
}

export const partWords: Record<Part, string> = {
  body: t`body`,
  boom: t`boom`,
  load: t`load`,
  tail: t`tail`,
  route: t`way`,
}
