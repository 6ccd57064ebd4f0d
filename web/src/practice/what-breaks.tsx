import type { ProcedureStep } from '@geolabe/core'
import type { ReactNode } from 'react'
import { t } from '../language/t'

type Hazard = ProcedureStep['hazards'][number]

const ground = <path d="M0 100H200" stroke="var(--ink)" strokeWidth="3" />
const block = (x: number, y: number, w: number, h: number) => (
  <rect x={x} y={y} width={w} height={h} fill="var(--sunk)" stroke="var(--ink)" strokeWidth="3" />
)
const moving = (how: string, children: ReactNode) => <g className={`breaks breaks-${how}`}>{children}</g>

/** What comes of it, as plain shapes: a part, the ground, and which way it goes. Nobody is in the picture. */
const pictures: Record<Hazard, ReactNode> = {
  drop: (
    <>
      {ground}
      <path d="M60 8H140M100 8V26" stroke="var(--ink)" strokeWidth="3" fill="none" />
      {moving('drop', block(72, 26, 56, 32))}
    </>
  ),
  roll: (
    <>
      <path d="M0 48L200 100" stroke="var(--ink)" strokeWidth="3" />
      {moving(
        'roll',
        <>
          {block(24, 18, 52, 24)}
          <circle cx="36" cy="46" r="9" fill="var(--edge)" stroke="var(--ink)" strokeWidth="3" />
          <circle cx="66" cy="54" r="9" fill="var(--edge)" stroke="var(--ink)" strokeWidth="3" />
        </>,
      )}
    </>
  ),
  tip: (
    <>
      {ground}
      {moving('tip', block(70, 22, 46, 76))}
    </>
  ),
  crush: (
    <>
      {ground}
      {block(150, 30, 40, 68)}
      {moving('crush', block(12, 40, 70, 58))}
    </>
  ),
  pressure: (
    <>
      {ground}
      {block(16, 46, 60, 26)}
      {moving('spray', <path d="M78 58l70-24M78 59h84M78 60l70 26" stroke="var(--outside)" strokeWidth="4" />)}
    </>
  ),
  fall: (
    <>
      <path d="M0 28H96V100H200" stroke="var(--ink)" strokeWidth="3" fill="none" />
      {moving('fall', block(62, 6, 22, 20))}
    </>
  ),
  shock: (
    <>
      {ground}
      {block(20, 60, 70, 38)}
      {moving(
        'flash',
        <path d="M128 6L104 46h20l-14 44 44-56h-22l18-28z" fill="var(--near)" stroke="var(--ink)" strokeWidth="2" />,
      )}
    </>
  ),
  fire: (
    <>
      {ground}
      {block(40, 62, 120, 36)}
      {moving(
        'flash',
        <path d="M100 8c26 22 24 34 12 54-4-8-10-12-12-20-4 10-12 12-10 22-18-18-12-36 10-56z" fill="var(--outside)" />,
      )}
    </>
  ),
}

const words: Record<Hazard, string> = {
  drop: t`It can come down.`,
  roll: t`It can roll away.`,
  tip: t`It can go over.`,
  crush: t`It can close on what is between.`,
  pressure: t`It can spray out under pressure.`,
  fall: t`Somebody can fall.`,
  shock: t`It can be live.`,
  fire: t`It can catch fire.`,
}

/** What would have broken, played once. */
export function WhatBreaks({ hazards }: { hazards: readonly Hazard[] }) {
  const [first] = hazards
  if (!first) return null
  return (
    <figure className="flex items-center gap-3">
      <svg viewBox="0 0 200 104" className="h-24 w-44 shrink-0 overflow-hidden rounded-lg bg-paper" aria-hidden="true">
        {pictures[first]}
      </svg>
      <figcaption className="font-semibold">{words[first]}</figcaption>
    </figure>
  )
}
