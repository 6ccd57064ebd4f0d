import type { Me } from '@geolabe/contract'
import { QueryClient, useQuery } from '@tanstack/react-query'
import { ApiError, get } from './client'
import { forgetKept } from './kept'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      // As long as a shift: what was read is kept for a page without a network.
      gcTime: 14 * 3_600_000,
      networkMode: 'always',
      retry: (count, e) => count < 2 && e instanceof ApiError && e.retryable,
      retryDelay: 600,
    },
  },
})

export const useMe = () =>
  useQuery({
    queryKey: ['me'],
    queryFn: () => get<Me>('/session').catch((e) => (e instanceof ApiError && e.status === 401 ? null : Promise.reject(e))),
    staleTime: 60_000,
    // Away is away: a screen that asks again as it opens would send everything back to waiting.
    retryOnMount: false,
  })
/** Somebody signs on or off: nothing that another read stays. */
export function become(me: Me | null): void {
  if (me === null) {
    // Comes with what is behind the sign-on.
    void import('./outbox').then(({ outbox }) => outbox.end())
    void forgetKept()
  }
  queryClient.removeQueries({ predicate: (q) => q.queryKey[0] !== 'me' })
  queryClient.setQueryData(['me'], me)
}
