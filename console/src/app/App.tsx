import { lazy, Suspense } from 'react'
import { Navigate, Route, Routes, useLocation } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { session } from '../features/access/api'
import { ExpiredSession } from '../features/access/ExpiredSession'
import { expiry } from '../features/access/expiry'
import { PersonContext } from '../shared/person'
import { LoginPage } from '../features/access/LoginPage'
import { NotFoundPage } from '../features/missing/NotFoundPage'
import { Loaded } from '../shared/Loading'
import { Layout } from './Layout'
import { t } from '../messages'

const AccountPage = lazy(() =>
  import('../features/access/AccountPage').then(({ AccountPage: page }) => ({ default: page })),
)
const DevicePage = lazy(() =>
  import('../features/access/DevicePage').then(({ DevicePage: page }) => ({ default: page })),
)
const PasswordPage = lazy(() =>
  import('../features/access/PasswordPage').then(({ PasswordPage: page }) => ({ default: page })),
)
const TodayPage = lazy(() => import('../features/today/TodayPage').then(({ TodayPage: page }) => ({ default: page })))
const RulesPage = lazy(() => import('../features/rules/RulesPage').then(({ RulesPage: page }) => ({ default: page })))
const RulePage = lazy(() => import('../features/rules/RulePage').then(({ RulePage: page }) => ({ default: page })))
const ExplanationPage = lazy(() =>
  import('../features/rules/ExplanationPage').then(({ ExplanationPage: page }) => ({ default: page })),
)
const RuleEditor = lazy(() =>
  import('../features/editor/RuleEditor').then(({ RuleEditor: page }) => ({ default: page })),
)
const NewRulePage = lazy(() =>
  import('../features/editor/RuleEditor').then(({ NewRulePage: page }) => ({ default: page })),
)
const ThresholdsPage = lazy(() =>
  import('../features/thresholds/ThresholdsPage').then(({ ThresholdsPage: page }) => ({ default: page })),
)
const ThresholdPage = lazy(() =>
  import('../features/thresholds/ThresholdPage').then(({ ThresholdPage: page }) => ({ default: page })),
)
const DocumentPage = lazy(() =>
  import('../features/documents/DocumentPage').then(({ DocumentPage: page }) => ({ default: page })),
)
const NewDocumentPage = lazy(() =>
  import('../features/documents/DocumentPage').then(({ NewDocumentPage: page }) => ({ default: page })),
)
const QueriesPage = lazy(() =>
  import('../features/queries/QueriesPage').then(({ QueriesPage: page }) => ({ default: page })),
)
const QueryPage = lazy(() => import('../features/queries/QueryPage').then(({ QueryPage: page }) => ({ default: page })))
const NewQueryPage = lazy(() =>
  import('../features/queries/QueryPage').then(({ NewQueryPage: page }) => ({ default: page })),
)
const FindingsPage = lazy(() =>
  import('../features/findings/FindingsPage').then(({ FindingsPage: page }) => ({ default: page })),
)
const RecipientsPage = lazy(() =>
  import('../features/recipients/RecipientsPage').then(({ RecipientsPage: page }) => ({ default: page })),
)
const RecipientPage = lazy(() =>
  import('../features/recipients/RecipientPage').then(({ RecipientPage: page }) => ({ default: page })),
)
const SetupPage = lazy(() => import('../features/setup/SetupPage').then(({ SetupPage: page }) => ({ default: page })))
const OutboxPage = lazy(() =>
  import('../features/outbox/OutboxPage').then(({ OutboxPage: page }) => ({ default: page })),
)
const ExtractPage = lazy(() =>
  import('../features/outbox/ExtractPage').then(({ ExtractPage: page }) => ({ default: page })),
)
const MessagePage = lazy(() =>
  import('../features/outbox/MessagePage').then(({ MessagePage: page }) => ({ default: page })),
)

const CalendarPage = lazy(() =>
  import('../features/calendars/CalendarPage').then(({ CalendarPage: page }) => ({ default: page })),
)
const RoundUpPage = lazy(() =>
  import('../features/roundups/RoundUpPage').then(({ RoundUpPage: page }) => ({ default: page })),
)
const LayoutPage = lazy(() =>
  import('../features/layouts/LayoutPage').then(({ LayoutPage: page }) => ({ default: page })),
)
const RecipientListPage = lazy(() =>
  import('../features/recipients/RecipientListPage').then(({ RecipientListPage: page }) => ({ default: page })),
)
const ThresholdForm = lazy(() =>
  import('../features/thresholds/ThresholdForm').then(({ ThresholdForm: page }) => ({ default: page })),
)
const StatementsPage = lazy(() =>
  import('../features/statements/Statements').then(({ StatementsPage: page }) => ({ default: page })),
)
const OverTimePage = lazy(() =>
  import('../features/findings/OverTimePage').then(({ OverTimePage: page }) => ({ default: page })),
)
const WeekPage = lazy(() => import('../features/week/WeekPage').then(({ WeekPage: page }) => ({ default: page })))
/** Logged in, the pages; otherwise the log-in, at whatever address, so that a link still leads where it said afterwards. */
export function App() {
  const current = useQuery(session)
  const expired = useQuery(expiry).data
  const { pathname } = useLocation()
  if (pathname === '/password')
    return (
      <Suspense fallback={null}>
        <PasswordPage />
      </Suspense>
    )
  // Who was there stays so if asking again fails; what ends a session is said above the page.
  const person = current.data
  if (person === undefined)
    return (
      <Loaded query={current} what={t('loading.your_log_in')}>
        {() => null}
      </Loaded>
    )
  if (person === null) return <LoginPage />
  return (
    <PersonContext value={person}>
      <div inert={expired}>
        <Routes>
          <Route element={<Layout person={person} />}>
            <Route path="/login" element={<Navigate to="/today" replace />} />
            <Route path="/account" element={<AccountPage />} />
            <Route path="/device" element={<DevicePage />} />
            <Route path="/today" element={<TodayPage />} />
            <Route path="/queries" element={<QueriesPage />} />
            <Route path="/queries/new" element={<NewQueryPage />} />
            <Route path="/queries/:name" element={<QueryPage />} />
            <Route path="/rules" element={<RulesPage />} />
            <Route path="/rules/new" element={<NewRulePage />} />
            <Route path="/statements" element={<StatementsPage />} />
            <Route path="/findings/over-time" element={<OverTimePage />} />
            <Route path="/week" element={<WeekPage />} />
            <Route path="/rules/:name" element={<RulePage />} />
            <Route path="/rules/:name/findings/:finding" element={<ExplanationPage />} />
            <Route path="/rules/:name/edit" element={<RuleEditor />} />
            <Route path="/findings" element={<FindingsPage />} />
            <Route path="/recipients" element={<RecipientsPage />} />
            <Route path="/recipients/:address" element={<RecipientPage />} />
            <Route path="/thresholds" element={<ThresholdsPage />} />
            <Route path="/thresholds/new" element={<ThresholdForm />} />
            <Route path="/thresholds/:name" element={<ThresholdPage />} />
            <Route path="/thresholds/:name/edit" element={<ThresholdForm />} />
            <Route path="/calendars/new" element={<CalendarPage />} />
            <Route path="/calendars/:name" element={<CalendarPage />} />
            <Route path="/round-ups/new" element={<RoundUpPage />} />
            <Route path="/round-ups/:name" element={<RoundUpPage />} />
            <Route path="/recipient-lists/new" element={<RecipientListPage />} />
            <Route path="/recipient-lists/:name" element={<RecipientListPage />} />
            <Route path="/layouts/new" element={<LayoutPage />} />
            <Route path="/layouts/:name" element={<LayoutPage />} />
            <Route path="/documents/new" element={<NewDocumentPage />} />
            <Route path="/documents/:kind/:name" element={<DocumentPage />} />
            <Route path="/setup" element={<SetupPage />} />
            <Route path="/setup/:part" element={<SetupPage />} />
            <Route path="/outbox" element={<OutboxPage />} />
            <Route path="/outbox/:id" element={<MessagePage />} />
            <Route path="/extracts/:id" element={<ExtractPage />} />
            <Route index element={<Navigate to="/today" replace />} />
            <Route path="*" element={<NotFoundPage />} />
          </Route>
        </Routes>
      </div>
      {expired && <ExpiredSession person={person} />}
    </PersonContext>
  )
}
