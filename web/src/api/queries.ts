import type {
  CertificatePage,
  Defect,
  DefectPage,
  DrawingPage,
  DuePage,
  Exam,
  ExamPage,
  ImportedPage,
  InspectionPage,
  InspectionReport,
  JournalCheck,
  JournalPage,
  LifeLine,
  MachineFile,
  OrderPage,
  PeoplePage,
  Places,
  PolicyPage,
  PracticeGames,
  PracticePage,
  PracticePoints,
  PracticeProgress,
  PractisedPage,
  Shift,
  ShiftPage,
  TableFile,
  TableList,
  TriedRun,
  TryWatched,
  WalkroundFile,
  Yard,
} from '@geolabe/contract'
import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useEffect, useSyncExternalStore } from 'react'
import { get } from './client'
import { queryClient } from './me'
import { outbox } from './outbox'

export const useYard = () => useQuery({ queryKey: ['yard'], queryFn: () => get<Yard>('/yard') })
export const useMachine = (id: string, enabled = true) =>
  useQuery({ queryKey: ['machine', id], queryFn: () => get<MachineFile>(`/machines/${id}`), enabled })
export const usePlaces = () => useQuery({ queryKey: ['places'], queryFn: () => get<Places>('/places'), staleTime: 300_000 })
/** A place as it counts, and the drawing that waits for a second person. */
export const drawingKey = (place: string) => ['places', place, 'drawing']
export const useDrawing = (place: string) =>
  useQuery({ queryKey: drawingKey(place), queryFn: () => get<DrawingPage>(`/places/${place}/drawing`) })
export const useShift = (id: string) => useQuery({ queryKey: ['shift', id], queryFn: () => get<Shift>(`/shifts/${id}`) })
/** What this installation is known by; asked once, kept for when there is no network. */
export const useInstallation = () =>
  useQuery({
    queryKey: ['installation'],
    queryFn: () => get<{ sealKey: string; publicKey: string }>('/installation'),
    staleTime: Number.POSITIVE_INFINITY,
  })
export const useMyShifts = () => useQuery({ queryKey: ['shifts', 'mine'], queryFn: () => get<ShiftPage>('/shifts?mine') })
export const useTables = () =>
  useQuery({ queryKey: ['tables'], queryFn: () => get<TableList>('/tables'), staleTime: 60_000, retry: false })
export const useTable = (id: string | null) =>
  useQuery({ queryKey: ['tables', id], queryFn: () => get<TableFile>(`/tables/${id}`), enabled: id !== null })
export const useDefect = (id: string) => useQuery({ queryKey: ['defects', id], queryFn: () => get<Defect>(`/defects/${id}`) })

outbox.onForgotten = () => queryClient.invalidateQueries()

/** A list that grows by pages; each page says where the next begins. */
const usePaged = <P extends { next: string | number | null }>(key: string[], path: string) =>
  useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) =>
      get<P>(pageParam === null ? path : `${path}${path.includes('?') ? '&' : '?'}before=${encodeURIComponent(pageParam)}`),
    initialPageParam: null as string | number | null,
    getNextPageParam: (last) => last.next,
  })
export const useShiftList = () => usePaged<ShiftPage>(['shifts', 'all'], '/shifts')
export const useImported = () => usePaged<ImportedPage>(['imported'], '/imported-shifts')
export const useDefectList = (all: boolean) =>
  usePaged<DefectPage>(['defects', all ? 'all' : 'open'], `/defects${all ? '?all' : ''}`)
export const useDefectsOf = (machine: string) =>
  usePaged<DefectPage>(['defects', 'of', machine], `/defects?all&machine=${encodeURIComponent(machine)}`)
export const useInspections = () => usePaged<InspectionPage>(['inspections'], '/inspections')
export const useInspectionReport = (enabled: boolean) =>
  useQuery({ queryKey: ['inspections', 'report'], queryFn: () => get<InspectionReport>('/inspections/report'), enabled })
/** Exams of practice that one sits or has set; certificates that one may see; what is on record of oneself, by kind of machine. */
export const useExams = () => useQuery({ queryKey: ['practice', 'exams'], queryFn: () => get<ExamPage>('/practice/exams') })
/** @param every_ms asked again so often, where somebody waits for something; left out: not */
export const useExam = (id: string, every_ms?: number) =>
  useQuery({
    queryKey: ['practice', 'exams', id],
    queryFn: () => get<Exam>(`/practice/exams/${id}`),
    refetchInterval: every_ms ?? false,
  })
export const useTriedRun = (exam: string, id: string | null) =>
  useQuery({
    queryKey: ['practice', 'tried', id],
    queryFn: () => get<TriedRun>(`/practice/exams/${exam}/tries/${id}`),
    enabled: id !== null,
    staleTime: Number.POSITIVE_INFINITY,
  })
/** A try that is under way, as far as it has come. */
export const useTryWatched = (exam: string, id: string) =>
  useQuery({
    queryKey: ['practice', 'so-far', id],
    queryFn: () => get<TryWatched>(`/practice/exams/${exam}/tries/${id}/so-far`),
    refetchInterval: 1000,
    gcTime: 0,
  })
export const useCertificates = () =>
  useQuery({ queryKey: ['practice', 'certificates'], queryFn: () => get<CertificatePage>('/practice/certificates') })
export const usePractised = () =>
  useQuery({ queryKey: ['practice', 'practised'], queryFn: () => get<PractisedPage>('/practice/practised') })
/** One's own practice, newest first. */
export const usePractice = () => useQuery({ queryKey: ['practice', 'runs'], queryFn: () => get<PracticePage>('/practice/runs') })
/** One's own weak points, what is due first. */
export const usePracticePoints = () =>
  useQuery({ queryKey: ['practice', 'points'], queryFn: () => get<PracticePoints>('/practice/points') })
/** How one's own skills go. */
export const usePracticeProgress = () =>
  useQuery({ queryKey: ['practice', 'progress'], queryFn: () => get<PracticeProgress>('/practice/progress') })
export const usePracticeGames = () =>
  useQuery({ queryKey: ['practice', 'games'], queryFn: () => get<PracticeGames>('/practice/games'), staleTime: 300_000 })
export const useDue = () => useQuery({ queryKey: ['due'], queryFn: () => get<DuePage>('/due') })
export const usePolicies = (place: string) =>
  useQuery({ queryKey: ['policies', place], queryFn: () => get<PolicyPage>(`/places/${place}/policies`) })
export const usePeople = () => useQuery({ queryKey: ['people'], queryFn: () => get<PeoplePage>('/people') })
export const useLife = (id: string, days: number) =>
  useQuery({ queryKey: ['life', id, days], queryFn: () => get<LifeLine>(`/machines/${id}/life?days=${days}`) })
export const useWalkroundFile = (id: string) =>
  useQuery({ queryKey: ['walkround', id], queryFn: () => get<WalkroundFile>(`/machines/${id}/walkround`) })

export const orderKey = (machine: string) => ['machine', machine, 'order']
export const useOrderPage = (machine: string) =>
  useQuery({ queryKey: orderKey(machine), queryFn: () => get<OrderPage>(`/machines/${machine}/procedures`) })

/** What the journal is searched by, as the address has it. */
export type JournalFilter = Partial<Record<'kind' | 'actor' | 'machine' | 'from' | 'to' | 'words', string>>
export const searchOf = (f: JournalFilter) =>
  new URLSearchParams(Object.entries(f).filter((e): e is [string, string] => Boolean(e[1]))).toString()
export const useJournal = (f: JournalFilter) => {
  const search = searchOf(f)
  return usePaged<JournalPage>(['journal', search], `/journal${search ? `?${search}` : ''}`)
}
export const useJournalCheck = (enabled: boolean) =>
  useQuery({ queryKey: ['journal-check'], queryFn: () => get<JournalCheck>('/journal/check'), enabled, staleTime: 0 })

export const useOutbox = () => useSyncExternalStore(outbox.subscribe, outbox.read)

/**
 * A shift as a write has left it. A reading that was under way when the write was answered may be older: it is asked anew, so
 * that it never takes back what stands in the records.
 */
export function putShift(id: string, next: Shift | ((s: Shift | undefined) => Shift | undefined)): void {
  const queryKey = ['shift', id]
  queryClient.setQueryData<Shift>(queryKey, next)
  if (queryClient.isFetching({ queryKey }) > 0) void queryClient.invalidateQueries({ queryKey })
}

/** What a screen has to read again when the database tells that something changed. */
const touched: Record<string, string[]> = {
  shifts: ['yard', 'machine', 'shifts', 'shift', 'inspections', 'life'],
  // One item of a walk-round: only the shift is read again.
  marks: ['shift'],
  defects: ['yard', 'machine', 'defects', 'shift', 'life'],
  tables: ['tables', 'machine'],
  places: ['places'],
  due: ['due', 'yard', 'machine', 'life'],
  people: ['people', 'me'],
  machines: ['machine', 'walkround'],
}

/** What a list needs of a query that comes page by page. */
export const moreOf = (q: { hasNextPage: boolean; isFetchingNextPage: boolean; fetchNextPage: () => unknown }) => ({
  has: q.hasNextPage,
  fetching: q.isFetchingNextPage,
  fetch: () => void q.fetchNextPage(),
})

/** Keeps open screens current. */
export function useLive(on: boolean) {
  useEffect(() => {
    if (!on) return
    const source = new EventSource('/api/live')
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const keys = touched[data]
      if (keys) for (const k of keys) void queryClient.invalidateQueries({ queryKey: [k] })
      else void queryClient.invalidateQueries()
      outbox.hurry()
    }
    return () => source.close()
  }, [on])
}
