import type { PartItem, PartPlace, Plate, SeenFault } from '@geolabe/core'
import type { ReactNode } from 'react'

/** Where each place is on its drawing, as paths on a paper of 400 by 240. */
const box = (x: number, y: number, w: number, h: number) => `M${x} ${y}h${w}v${h}h${-w}z`
const ring = (x: number, y: number, out: number, inside: number) => {
  const circle = (r: number) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`
  return circle(out) + (inside > 0 ? circle(inside) : '')
}
export const zones: Record<Plate['drawn'], Partial<Record<PartPlace, string>>> = {
  fork: { lock: box(20, 4, 120, 76), heel: box(34, 140, 116, 92), blade: box(156, 150, 112, 82), tip: box(274, 130, 120, 102) },
  'mast-chain': {
    'left-anchor': box(60, 2, 130, 70),
    'right-anchor': box(210, 2, 130, 70),
    'left-chain': box(60, 78, 130, 158),
    'right-chain': box(210, 78, 130, 158),
  },
  wheel: {
    tread: ring(200, 120, 116, 88),
    sidewall: ring(200, 120, 86, 54),
    nuts: ring(200, 120, 52, 0),
    valve: box(306, 84, 84, 72),
  },
  hook: {
    swivel: box(150, 40, 110, 58),
    latch: box(176, 102, 88, 46),
    throat: box(92, 102, 80, 62),
    seat: box(140, 172, 124, 60),
  },
  rope: { sheave: box(10, 30, 132, 190), middle: box(148, 20, 128, 90), end: box(282, 14, 112, 116) },
  'load-chain': { 'hoist-end': box(4, 60, 128, 120), middle: box(138, 70, 134, 100), end: box(278, 50, 118, 140) },
  pins: { pin: ring(200, 96, 34, 0), keeper: box(128, 138, 144, 44), lug: box(62, 14, 132, 118) },
  leg: { beam: box(150, 44, 84, 66), pin: box(66, 34, 78, 86), jack: box(240, 36, 84, 164) },
}

const crack = (x: number, y: number, size: number, turn = 0) => (
  <path
    transform={`translate(${x} ${y}) rotate(${turn}) scale(${0.55 + 0.65 * size})`}
    d="M0 0l5 7l-6 6l7 7l-5 6l4 6"
    fill="none"
    stroke="var(--ink)"
    strokeWidth={2.6}
  />
)

type Seen = NonNullable<PartItem['seen']>
/** How large a thing is seen there; null: it is not. */
type At = (fault: SeenFault, at: PartPlace) => number | null
const seenOn =
  (seen: Seen | null): At =>
  (fault, at) =>
    seen?.fault === fault && seen.at === at ? seen.size : null

/** What of it is left or has come to by its reading, as a share of what was fitted; 1 where nothing is measured there. */
const shareOf = (read: PartItem['read'], at: PartPlace) =>
  read?.at === at && read.measure.nominal ? read.reading / read.measure.nominal : 1

function Fork({ at, read }: { at: At; read: PartItem['read'] }) {
  const thick = 32 * shareOf(read, 'heel')
  const up = 10 + 22 * (at('part-bent', 'tip') ?? 0)
  const bent = at('part-bent', 'tip') !== null
  const tip = bent ? `L300 ${224 - thick}L388 ${212 - up}L388 ${220 - up}L300 224` : 'L388 214L388 222L384 224'
  const gone = at('part-missing', 'lock') !== null
  const heel = at('part-cracked', 'heel')
  const blade = at('part-cracked', 'blade')
  return (
    <>
      <path d="M8 20H60V60H8M8 176H60V206H8" fill="var(--sunk)" stroke="var(--edge)" strokeWidth={2} />
      <path
        d={`M62 14H92V${186 - thick}Q92 ${224 - thick} 118 ${224 - thick}${tip}H104Q62 224 62 182Z`}
        fill="var(--line)"
        stroke="var(--ink)"
        strokeWidth={3}
        strokeLinejoin="round"
      />
      <circle cx={77} cy={38} r={6} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
      {!gone && (
        <>
          <path d="M77 38V10H104" fill="none" stroke="var(--ink)" strokeWidth={8} strokeLinejoin="round" />
          <path d="M77 38V11H103" fill="none" stroke="var(--accent)" strokeWidth={4} strokeLinejoin="round" />
        </>
      )}
      {heel !== null && crack(96, 196 - thick, heel, -40)}
      {blade !== null && crack(210, 231 - thick, blade)}
    </>
  )
}

/** Two chains before one another; one that is slack hangs out of line. */
function Chains({ at, read }: { at: At; read: PartItem['read'] }) {
  const side = (x: number, chain: 'left-chain' | 'right-chain', anchor: 'left-anchor' | 'right-anchor') => {
    const slack = at('part-bent', chain)
    const cracked = at('part-cracked', chain)
    const pitch = 22 * (1 + 3 * (shareOf(read, chain) - 1))
    const off = (y: number) => (slack === null ? 0 : (9 + 12 * slack) * Math.sin(((y - 70) / 170) * Math.PI * 2))
    const links = Array.from({ length: 8 }, (_, i) => 74 + i * pitch).filter((y) => y < 236)
    return (
      <g stroke="var(--ink)" strokeWidth={2.4}>
        <path d={`M${x - 16} 6H${x + 16}V40H${x - 16}Z`} fill="var(--sunk)" />
        <path d={`M${x} 40V78`} strokeWidth={12} stroke="var(--ink)" />
        <circle cx={x} cy={23} r={7} fill="var(--paper)" />
        {at('part-missing', anchor) === null && (
          <path d={`M${x - 24} 23H${x + 24}m0 0l9 -7m-9 7l9 7`} fill="none" strokeWidth={4} />
        )}
        {links.map((y, i) => (
          <rect key={y} x={x - (i % 2 ? 10 : 15) + off(y)} y={y} width={i % 2 ? 20 : 30} height={27} rx={9} fill="var(--line)" />
        ))}
        {links.map((y) => (
          <circle key={y} cx={x + off(y)} cy={y + 6} r={3.4} fill="var(--ink)" stroke="none" />
        ))}
        {cracked !== null && crack(x - 9, 150, 0.55 * cracked, -62)}
      </g>
    )
  }
  return (
    <>
      {side(125, 'left-chain', 'left-anchor')}
      {side(275, 'right-chain', 'right-anchor')}
    </>
  )
}

function Wheel({ at, valve }: { at: At; valve: number | null }) {
  const [tread, wall, nuts, bulge] = [
    at('part-cut', 'tread'),
    at('part-cut', 'sidewall'),
    at('part-missing', 'nuts'),
    at('part-bent', 'sidewall'),
  ]
  const nut = (i: number) => [200 + 36 * Math.cos((i * Math.PI) / 4), 120 + 36 * Math.sin((i * Math.PI) / 4)] as const
  return (
    <>
      <circle cx={200} cy={120} r={108} fill="var(--quiet)" stroke="var(--ink)" strokeWidth={3} />
      {Array.from({ length: 30 }, (_, i) => i * 12).map((turn) => (
        <path key={turn} d="M200 13V31" stroke="var(--ink)" strokeWidth={5} transform={`rotate(${turn} 200 120)`} />
      ))}
      <circle cx={200} cy={120} r={87} fill="var(--edge)" stroke="var(--ink)" strokeWidth={2} />
      <circle cx={200} cy={120} r={54} fill="var(--line)" stroke="var(--ink)" strokeWidth={3} />
      {tread !== null && (
        <path
          d="M-15 -5L-7 14L0 8L8 17L16 -5"
          transform={`translate(285 53) rotate(52) scale(${0.7 + 0.6 * tread})`}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
      {wall !== null && (
        <path
          d="M-24 4Q0 -14 24 4Q0 -3 -24 4Z"
          transform={`translate(142 78) rotate(-42) scale(${0.6 + 0.6 * wall})`}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={3}
        />
      )}
      {bulge !== null && (
        <g transform={`translate(252 168) scale(${0.7 + 0.5 * bulge})`}>
          <circle r={19} fill="var(--edge)" stroke="var(--ink)" strokeWidth={2.4} />
          <path d="M-10 -6Q-5 -13 4 -12" fill="none" stroke="var(--paper)" strokeWidth={3} />
        </g>
      )}
      <circle cx={200} cy={120} r={14} fill="var(--edge)" stroke="var(--ink)" strokeWidth={2} />
      {Array.from({ length: 8 }, (_, i) => i).map((i) => {
        const [x, y] = nut(i)
        return i === 5 && nuts !== null ? (
          <circle key={i} cx={x} cy={y} r={3.5} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
        ) : (
          <path
            key={i}
            d="M-8 0L-4 -7H4L8 0L4 7H-4Z"
            transform={`translate(${x} ${y})`}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={2}
          />
        )
      })}
      {valve !== null && (
        <>
          <path d="M250 130L300 122H316" stroke="var(--ink)" strokeWidth={3} fill="none" />
          <circle cx={346} cy={120} r={30} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={3} />
          <path d="M346 120V98" stroke="var(--ink)" strokeWidth={3} transform={`rotate(${400 * (valve - 1)} 346 120)`} />
        </>
      )}
    </>
  )
}

function Hook({ at, read }: { at: At; read: PartItem['read'] }) {
  const open = 260 * (shareOf(read, 'throat') - 1)
  const [seat, swivel] = [at('part-cracked', 'seat'), at('part-cracked', 'swivel')]
  const bow = `M206 92V116C262 128 266 202 204 206C146 208 ${126 - open} 172 ${136 - open} 138`
  return (
    <>
      <path d="M148 4H264V46H148Z" fill="var(--sunk)" stroke="var(--ink)" strokeWidth={3} />
      <path d={bow} fill="none" stroke="var(--ink)" strokeWidth={34} strokeLinecap="round" />
      <path d={bow} fill="none" stroke="var(--line)" strokeWidth={28} strokeLinecap="round" />
      <path d="M188 70H224V98H188Z" fill="var(--line)" stroke="var(--ink)" strokeWidth={3} />
      <path d="M176 46H236V70H176Z" fill="var(--line)" stroke="var(--ink)" strokeWidth={3} />
      {at('part-missing', 'latch') === null && (
        <path d={`M212 122L${140 - open} 134`} stroke="var(--accent)" strokeWidth={7} strokeLinecap="round" />
      )}
      <circle cx={212} cy={122} r={5} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
      {seat !== null && crack(206, 188, seat, 4)}
      {swivel !== null && crack(196, 52, 0.8 * swivel, -20)}
    </>
  )
}

function Rope({ at, read }: { at: At; read: PartItem['read'] }) {
  const thick = 18 * shareOf(read, 'middle')
  const run = 'M76 208A60 60 0 0 1 76 88'
  const wires = (x: number, y: number, size: number) => (
    <path
      transform={`translate(${x} ${y}) scale(${0.6 + 0.6 * size})`}
      d="M-14 0l-6 -15M-6 0l-2 -19M2 0l4 -17M9 0l9 -14M15 0l13 -9"
      stroke="var(--ink)"
      strokeWidth={2.4}
      fill="none"
    />
  )
  const cage = (x: number, y: number, size: number) => (
    <g transform={`translate(${x} ${y}) scale(${0.6 + 0.6 * size})`} stroke="var(--ink)" strokeWidth={2.4} fill="none">
      <ellipse rx={26} ry={19} fill="var(--line)" />
      <path d="M-24 0Q0 -30 24 0M-24 0Q0 -10 24 0M-24 0Q0 12 24 0M-24 0Q0 30 24 0" />
    </g>
  )
  const [cutSheave, cutMiddle] = [at('part-cut', 'sheave'), at('part-cut', 'middle')]
  const [bentSheave, bentMiddle] = [at('part-bent', 'sheave'), at('part-bent', 'middle')]
  return (
    <>
      <circle cx={76} cy={148} r={52} fill="var(--sunk)" stroke="var(--ink)" strokeWidth={3} />
      <circle cx={76} cy={148} r={10} fill="var(--paper)" stroke="var(--ink)" strokeWidth={3} />
      <g fill="none">
        <path d={`${run}L300 70`} stroke="var(--ink)" strokeWidth={22} />
        <path d={run} stroke="var(--line)" strokeWidth={16} />
        <path d={run} stroke="var(--ink)" strokeWidth={16} strokeDasharray="2 7" />
        <path d="M76 88L300 70" stroke="var(--paper)" strokeWidth={24} />
        <path d="M76 88L300 70" stroke="var(--ink)" strokeWidth={thick + 5} />
        <path d="M76 88L300 70" stroke="var(--line)" strokeWidth={thick} />
        <path d="M76 88L300 70" stroke="var(--ink)" strokeWidth={thick} strokeDasharray="2 7" />
      </g>
      {cutSheave !== null && wires(108, 80, cutSheave)}
      {cutMiddle !== null && wires(214, 70, cutMiddle)}
      {bentSheave !== null && cage(112, 85, 0.8 * bentSheave)}
      {bentMiddle !== null && cage(214, 77, bentMiddle)}
      <path d="M296 46L380 52V86L296 94Z" fill="var(--sunk)" stroke="var(--ink)" strokeWidth={3} />
      <circle cx={348} cy={69} r={9} fill="var(--paper)" stroke="var(--ink)" strokeWidth={3} />
      {at('part-missing', 'end') === null && (
        <>
          <circle cx={348} cy={69} r={6} fill="var(--ink)" />
          <path d="M348 69V112m-9 -8q9 18 18 0" fill="none" stroke="var(--ink)" strokeWidth={4} />
        </>
      )}
    </>
  )
}

/** Links face on and edge on by turns; a stretched chain has them further apart, a bent one stands across. */
function LoadChain({ at, read }: { at: At; read: PartItem['read'] }) {
  const pitch = 24 * (1 + 4 * (shareOf(read, 'middle') - 1))
  const links = Array.from({ length: 11 }, (_, i) => 66 + i * pitch)
  const bent: Record<number, number | null> = { 2: at('part-bent', 'hoist-end'), 6: at('part-bent', 'middle') }
  const cracked: Record<number, number | null> = { 2: at('part-cracked', 'hoist-end'), 6: at('part-cracked', 'middle') }
  const end = (links.at(-1) ?? 306) + 24
  return (
    <>
      <path d="M8 76H52V164H8Z" fill="var(--sunk)" stroke="var(--ink)" strokeWidth={3} />
      {links.map((x, i) => {
        const turn = bent[i] ?? null
        const crackedBy = cracked[i] ?? null
        return (
          <g key={x} transform={`translate(${x} 120) rotate(${turn === null ? 0 : 24 + 26 * turn})`} stroke="var(--ink)">
            {i % 2 ? (
              <rect x={-21} y={-5} width={42} height={10} rx={5} fill="var(--line)" strokeWidth={2.4} />
            ) : (
              <>
                <rect x={-22} y={-16} width={44} height={32} rx={16} fill="none" strokeWidth={12} />
                <rect x={-22} y={-16} width={44} height={32} rx={16} fill="none" stroke="var(--line)" strokeWidth={7} />
              </>
            )}
            {crackedBy !== null && crack(2, -26, 0.75 * crackedBy)}
          </g>
        )
      })}
      <path d={`M${end} 96H${end + 46}V144H${end}Z`} fill="var(--sunk)" stroke="var(--ink)" strokeWidth={3} />
      <circle cx={end + 23} cy={120} r={9} fill="var(--paper)" stroke="var(--ink)" strokeWidth={3} />
      {at('part-missing', 'end') === null && (
        <>
          <circle cx={end + 23} cy={120} r={6.5} fill="var(--ink)" />
          <path d={`M${end + 23} 120V166m-9 -8q9 18 18 0`} fill="none" stroke="var(--ink)" strokeWidth={4} />
        </>
      )}
    </>
  )
}

/** A pin in its lug, held by a plate with two bolts. */
function Pins({ at }: { at: At }) {
  const lug = at('part-cracked', 'lug')
  const there = at('part-missing', 'keeper') === null
  return (
    <>
      <path
        d="M96 232V96A104 86 0 0 1 304 96V232Z"
        fill="var(--line)"
        stroke="var(--ink)"
        strokeWidth={3}
        strokeLinejoin="round"
      />
      <circle cx={200} cy={96} r={46} fill="var(--sunk)" stroke="var(--ink)" strokeWidth={3} />
      <circle cx={200} cy={96} r={34} fill="var(--edge)" stroke="var(--ink)" strokeWidth={3} />
      {there && <path d="M136 144H264V176H136Z" fill="var(--sheet)" stroke="var(--ink)" strokeWidth={3} />}
      {[154, 246].map((x) =>
        there ? (
          <path
            key={x}
            d="M-9 0L-4.5 -8H4.5L9 0L4.5 8H-4.5Z"
            transform={`translate(${x} 160)`}
            fill="var(--line)"
            stroke="var(--ink)"
            strokeWidth={2.4}
          />
        ) : (
          <circle key={x} cx={x} cy={160} r={5} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2.4} />
        ),
      )}
      {lug !== null && crack(160, 66, lug, 138)}
    </>
  )
}

function Leg({ at }: { at: At }) {
  const [beam, jack] = [at('part-cracked', 'beam'), at('part-cracked', 'jack')]
  return (
    <>
      <path d="M8 40H140V114H8Z" fill="var(--sunk)" stroke="var(--ink)" strokeWidth={3} />
      <path d="M140 54H262V100H140Z" fill="var(--line)" stroke="var(--ink)" strokeWidth={3} />
      <path d="M258 40H306V150H258Z" fill="var(--line)" stroke="var(--ink)" strokeWidth={3} />
      <path d="M270 150H294V204H270Z" fill="var(--paper)" stroke="var(--ink)" strokeWidth={3} />
      <path d="M222 204H342V222H222Z" fill="var(--sunk)" stroke="var(--ink)" strokeWidth={3} />
      <path d="M0 222H400" stroke="var(--ink)" strokeWidth={3} />
      <circle cx={104} cy={77} r={13} fill="var(--paper)" stroke="var(--ink)" strokeWidth={3} />
      {at('part-missing', 'pin') === null && (
        <>
          <circle cx={104} cy={77} r={10} fill="var(--ink)" />
          <path d="M104 77m-7 0a7 7 0 1 1 14 0v30" fill="none" stroke="var(--accent)" strokeWidth={4} />
        </>
      )}
      {beam !== null && crack(196, 54, beam, 8)}
      {jack !== null && crack(268, 102, jack, -52)}
    </>
  )
}

/** A part as it is seen, true in its worn places to what was measured of them. */
export function PartDrawing({ item }: { item: PartItem }): ReactNode {
  const at = seenOn(item.seen)
  switch (item.plate.drawn) {
    case 'fork':
      return <Fork at={at} read={item.read} />
    case 'mast-chain':
      return <Chains at={at} read={item.read} />
    case 'load-chain':
      return <LoadChain at={at} read={item.read} />
    case 'pins':
      return <Pins at={at} />
    case 'wheel':
      return <Wheel at={at} valve={item.plate.places.includes('valve') ? shareOf(item.read, 'valve') : null} />
    case 'hook':
      return <Hook at={at} read={item.read} />
    case 'rope':
      return <Rope at={at} read={item.read} />
    case 'leg':
      return <Leg at={at} />
  }
}
