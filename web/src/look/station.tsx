import clsx from 'clsx'
import { type ReactNode, useEffect } from 'react'
import { t } from '../language/t'
import { ActionBar } from './page'

interface Props {
  title: string
  /** One line beneath the title. */
  below?: ReactNode
  /** What is true of the whole: the verdict, or what stands in the way. */
  head?: ReactNode
  /** Touched directly. */
  drawing: ReactNode
  /** What was touched, or chosen by its name. */
  sheet: ReactNode
  /** A list beside the drawing; where there is none the sheet has its room. */
  list?: ReactNode
  /** What comes first on a phone; the head, where it says the verdict. */
  first?: 'head' | 'drawing' | 'sheet'
  /** Why the next action is not to be had yet, or what it does. */
  why?: ReactNode
  /** None: the sheet has them itself. */
  actions?: ReactNode
}

/**
 * One screen a station: what is worked on is drawn and touched, one sheet beside it shows what was touched, the next action is
 * always in view. Where the screen has room nothing of the page scrolls; on a phone it is two screens at most.
 */
export function Station({ title, below, head, drawing, sheet, list, first = 'head', why, actions }: Props) {
  useEffect(() => {
    document.title = t`${title} · Geolabe`
  }, [title])
  // A phone has room for the verdict or for the name of the station, which the route line says too.
  const untitled = first === 'head' && head !== undefined && below === undefined
  return (
    <>
      <div data-station="" className={clsx('station', list !== undefined && 'station-with-list', `station-${first}-first`)}>
        <header className={clsx('station-title flex flex-wrap items-baseline gap-x-4', untitled && 'max-md:sr-only')}>
          <h1 className="text-[1.4rem] max-sm:text-[1.2rem]">{title}</h1>
          {below && <p className="text-quiet max-sm:text-[0.9rem]">{below}</p>}
        </header>
        <div className="station-head grid content-start gap-2 empty:hidden">{head}</div>
        <div className="station-drawing">{drawing}</div>
        {list !== undefined && <div className="station-list">{list}</div>}
        <div className="station-sheet">{sheet}</div>
      </div>
      {actions && <ActionBar why={why}>{actions}</ActionBar>}
    </>
  )
}
