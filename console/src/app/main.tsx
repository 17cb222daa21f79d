import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { QueryClientProvider } from '@tanstack/react-query'
import '@fontsource-variable/source-sans-3'
import '@fontsource-variable/source-code-pro'
import { newClient } from './client'
import { App } from './App'
import './theme.scss'
import './frame.scss'
import '../shared/shared.scss'
import '../shared/cards.scss'
import '../shared/columns.scss'
import '../shared/code.scss'
import '../shared/month.scss'
import '../features/access/access.scss'
import '../features/editor/editor.scss'
import '../features/queries/queries.scss'
import '../features/revisions/revisions.scss'
import '../features/rules/rules.scss'
import '../features/week/week.scss'
import '../features/setup/setup.scss'
import '../features/today/today.scss'
import './phone.scss'
import { language } from '../messages'

const dark = matchMedia('(prefers-color-scheme: dark)')
const applyTheme = () => document.documentElement.setAttribute('data-bs-theme', dark.matches ? 'dark' : 'light')
dark.addEventListener('change', applyTheme)
applyTheme()

const client = newClient()

document.documentElement.lang = language
const root = document.getElementById('root')
if (!root) throw new Error('index.html has no element with the id root')
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <BrowserRouter>
        <App />
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
)
