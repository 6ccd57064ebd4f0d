import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { queryClient } from './api/queries'
import { App } from './app'
import { Preferred } from './units/preferred'
import './style.css'

const root = document.getElementById('root')
if (!root) throw new Error('The page has no root.')
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Preferred>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </Preferred>
    </QueryClientProvider>
  </StrictMode>,
)
