import { Fragment, type ReactNode, useEffect, useMemo, useState } from 'react'
import { chooseLanguage, chosenLanguage } from './chosen'
import { PreferencesContext, type System } from './units'

const kept = (key: string) => {
  try {
    return localStorage.getItem(key)
  } catch {
    return null
  }
}
const keep = (key: string, v: string) => {
  try {
    localStorage.setItem(key, v)
  } catch {
    // Not kept for next time; still used now.
  }
}

/** Day or night, metric or US, dates and figures by language: the person's own choice, else what the device says. */
export function Preferred({ children }: { children: ReactNode }) {
  const [units, setUnits] = useState<System>(() => (kept('geolabe.units') === 'us' ? 'us' : 'metric'))
  const [language, setLanguage] = useState(chosenLanguage)
  const [light, setLight] = useState<'day' | 'night'>(() => {
    const own = kept('geolabe.light')
    if (own === 'day' || own === 'night') return own
    return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
  })
  useEffect(() => {
    document.documentElement.dataset.light = light
  }, [light])
  const value = useMemo(
    () => ({
      units,
      light,
      language,
      setUnits: (u: System) => {
        keep('geolabe.units', u)
        setUnits(u)
      },
      setLight: (l: 'day' | 'night') => {
        keep('geolabe.light', l)
        setLight(l)
      },
      setLanguage: (l: string) => {
        void chooseLanguage(l).then(() => setLanguage(l))
      },
    }),
    [units, light, language],
  )
  return (
    <PreferencesContext value={value}>
      {/* Everything is written anew in another language. */}
      <Fragment key={language}>{children}</Fragment>
    </PreferencesContext>
  )
}
