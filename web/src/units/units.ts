import { askWhich, editFigure, figureFormat, readFigure } from '@geolabe/contract'
import type { Quantity, Say } from '@geolabe/core'
import { createContext, useContext } from 'react'
import { t } from '../language/t'

export type System = 'metric' | 'us'

interface Unit {
  label: string
  /** SI value of one unit; exact. */
  factor: number
  digits: number
}

/** Metric or US customary, by choice of the person; converted only here. Factors are exact by definition. */
const units: Record<System, Record<Quantity, Unit>> = {
  metric: {
    mass: { label: 'kg', factor: 1, digits: 0 },
    length: { label: 'm', factor: 1, digits: 2 },
    area: { label: 'm²', factor: 1, digits: 1 },
    pressure: { label: 'kPa', factor: 1, digits: 0 },
    force: { label: 'kN', factor: 1000, digits: 0 },
    speed: { label: 'm/s', factor: 1, digits: 1 },
    angle: { label: '°', factor: 1, digits: 1 },
    share: { label: '%', factor: 0.01, digits: 0 },
  },
  us: {
    mass: { label: 'lb', factor: 0.45359237, digits: 0 },
    length: { label: 'ft', factor: 0.3048, digits: 1 },
    area: { label: 'ft²', factor: 0.09290304, digits: 0 },
    pressure: { label: 'psf', factor: 0.0478802589803358, digits: 0 },
    force: { label: 'kip', factor: 4448.2216152605, digits: 1 },
    speed: { label: 'mph', factor: 0.44704, digits: 0 },
    angle: { label: '°', factor: 1, digits: 1 },
    share: { label: '%', factor: 0.01, digits: 0 },
  },
}

let locale = typeof navigator === 'undefined' ? 'en-GB' : navigator.language

/** Figures are written and read as this language has them from now on. */
export function writeFiguresAs(language: string): void {
  locale = language
}

export const unitOf = (system: System, q: Quantity) => units[system][q]

export function figureOf(
  system: System,
  q: Quantity,
  value: number,
  digits = units[system][q].digits,
  language = locale,
): string {
  const format = figureFormat(language, { minimumFractionDigits: digits, maximumFractionDigits: digits })
  return format.format(value / units[system][q].factor)
}

export const sayIn =
  (system: System): Say =>
  (q, value) => {
    const { label } = units[system][q]
    return `${figureOf(system, q, value)}${label === '°' ? '' : ' '}${label}`
  }

/** A typed figure in the person's unit, as SI; null when it is no number. Groups and decimals as the locale writes them. */
export function parseIn(system: System, q: Quantity, text: string, language = locale): number | null {
  const { value } = readFigure(text, language)
  return value === null ? null : value * units[system][q].factor
}

/** A typed figure in no unit of ours (hours, a reading in its own); null when it is no number. */
export const parsePlain = (text: string, language = locale): number | null => readFigure(text, language).value

/** What is wrong with a typed figure, or has to be asked; null: nothing. What has to be asked is not taken yet. */
export function typedFault(text: string, language = locale): string | null {
  if (text.trim() === '') return null
  const read = readFigure(text, language)
  return read.value === null ? t`Not a figure. Use digits, with a comma or point.` : askWhich(read)
}

/** An SI value as it is edited: no grouping, no more digits than carry meaning. */
export function editIn(system: System, q: Quantity, value: number | null, language = locale): string {
  if (value === null) return ''
  return editFigure(value / units[system][q].factor, language, Math.max(units[system][q].digits, 2))
}

/** A figure in no unit of ours as it is edited. */
export const editPlain = (value: number, digits = 10, language = locale) => editFigure(value, language, digits)

export interface Preferences {
  units: System
  light: 'day' | 'night'
  /** How dates and figures are written, as a BCP 47 tag. */
  language: string
  setUnits: (u: System) => void
  setLight: (l: 'day' | 'night') => void
  setLanguage: (l: string) => void
}
export const PreferencesContext = createContext<Preferences>({
  units: 'metric',
  light: 'day',
  language: 'en-GB',
  setUnits: () => {},
  setLight: () => {},
  setLanguage: () => {},
})
export const usePreferences = () => useContext(PreferencesContext)
const sayers: Record<System, Say> = { metric: sayIn('metric'), us: sayIn('us') }
export const useSay = (): Say => sayers[usePreferences().units]
