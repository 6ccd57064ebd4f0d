import { PersistQueryClientProvider } from '@tanstack/react-query-persist-client'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { persistOptions } from './api/kept'
import { queryClient } from './api/me'
import { App } from './app'
import { Preferred } from './units/preferred'

const root = document.getElementById('root')
if (!root) throw new Error('The page has no root.')
createRoot(root).render(
  <StrictMode>
    <PersistQueryClientProvider
      client={queryClient}
      persistOptions={persistOptions}
      // What was kept is shown at once, and asked for anew: the records decide.
      onSuccess={() => queryClient.invalidateQueries()}
    >
      <Preferred>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </Preferred>
    </PersistQueryClientProvider>
  </StrictMode>,
)
