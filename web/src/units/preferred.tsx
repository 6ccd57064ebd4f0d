import { type ReactNode, useEffect, useMemo, useState } from 'react'
import { PreferencesContext, type System } from './units'

const kept = (key: string) => {
  try {
    return localStorage.getItem(key)
  } catch {
    return null
  }
}

/** Day or night, metric or US: the person's own choice, else what the device says. */
export function Preferred({ children }: { children: ReactNode }) {
  const [units, setUnits] = useState<System>(() => (kept('geolabe.units') === 'us' ? 'us' : 'metric'))
  const [light, setLight] = useState<'day' | 'night'>(() => {
    const own = kept('geolabe.light')
    if (own === 'day' || own === 'night') return own
    return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
  })
  useEffect(() => {
    document.documentElement.dataset.light = light
  }, [light])
  const value = useMemo(() => {
    const keep = (key: string, v: string) => {
      try {
        localStorage.setItem(key, v)
      } catch {
        // Not kept for next time; still used now.
      }
    }
    return {
      units,
      light,
      setUnits: (u: System) => {
        keep('geolabe.units', u)
        setUnits(u)
      },
      setLight: (l: 'day' | 'night') => {
        keep('geolabe.light', l)
        setLight(l)
      },
    }
  }, [units, light])
  return <PreferencesContext value={value}>{children}</PreferencesContext>
}
