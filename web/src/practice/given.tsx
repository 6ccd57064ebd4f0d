import type { BegunTry } from '@geolabe/contract'
import { createContext, useContext } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'

/** A try of an exam: its course is given, and its run carries the try's id. */
export interface Given extends BegunTry {
  exam: string
}

const Trying = createContext<Given | null>(null)
export const Sitting = Trying.Provider

/** The try that this run is; null: practice of one's own. */
export const useGiven = (): Given | null => useContext(Trying)

/** The id of the run that is over. */
export function useRunId(): () => string {
  const given = useGiven()
  return () => given?.id ?? newId()
}

/** Back to where the run was begun. */
export function useLeave(): (to?: string) => void {
  const [given, navigate] = [useGiven(), useNavigate()]
  return (to = '/practice') => navigate(given ? `/practice/exams/${given.exam}` : to)
}
