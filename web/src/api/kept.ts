import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister'
import { type PersistQueryClientProviderProps, removeOldestQuery } from '@tanstack/react-query-persist-client'
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

interface Store extends DBSchema {
  kept: { key: string; value: string }
}

let opened: Promise<IDBPDatabase<Store>> | null = null
/** One connection for the page’s life; where the device gives none, the next use asks again. */
const db = () => {
  opened ??= openDB<Store>('geolabe-kept', 1, { upgrade: (d) => d.createObjectStore('kept') }).catch((e) => {
    opened = null
    throw e
  })
  return opened
}

/** What has been read from the records, kept on the device so that a page opened without a network still shows it. */
const storage = {
  getItem: async (key: string) => (await (await db()).get('kept', key)) ?? null,
  setItem: async (key: string, value: string) => {
    await (await db()).put('kept', value, key)
  },
  removeItem: async (key: string) => (await db()).delete('kept', key),
}

/** What a walk-round, its shift and practice need; lists of records are read anew. */
const wanted = new Set(['me', 'yard', 'machine', 'places', 'shift', 'installation', 'practice'])

export const persistOptions: PersistQueryClientProviderProps['persistOptions'] = {
  persister: createAsyncStoragePersister({ storage, key: 'records', throttleTime: 1500, retry: removeOldestQuery }),
  maxAge: 14 * 3_600_000,
  buster: '5',
  dehydrateOptions: {
    shouldDehydrateQuery: (q) => q.state.status === 'success' && q.state.data !== null && wanted.has(String(q.queryKey[0])),
  },
}

/** Signed off: nothing that was read stays on the device. */
export async function forgetKept(): Promise<void> {
  await storage.removeItem('records').catch(() => {})
}
