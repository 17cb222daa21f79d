import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { operator, renderAt } from '../../shared/render.test-kit'
import { ArchivePanel } from './ArchivePanel'
import { Retire } from './Retire'
import { RetiredNote } from './RetiredNote'
import type { Retired } from './api'

const lateSailings: Retired = {
  kind: 'rule',
  name: 'late-sailings',
  title: 'Late sailings',
  owner: 'Traffic reporting',
  at: '2026-11-24T04:40:00Z',
  by: 'Ines Holm',
  reason: 'the line closed',
}
const analyst = { ...operator, role: 'ANALYST' as const, teams: ['Terminal operations'] }
const decides = { 'GET /api/access-policy': { teamsDecide: true } }

describe('the archive', () => {
  test('says what was retired, by whom and why, and restores it', async () => {
    const calls = renderAt('/', <ArchivePanel />, {
      'GET /api/archive': [lateSailings, { ...lateSailings, kind: 'recipient-list', name: 'desk', owner: null }],
      'POST /api/definitions/rule/late-sailings/restore': '',
    })
    expect(await screen.findByText('recipient list')).toBeInTheDocument()
    expect(screen.getByText('all teams')).toBeInTheDocument()
    expect(screen.getAllByText('the line closed')).toHaveLength(2)
    await userEvent.click(screen.getAllByRole('button', { name: 'Restore Late sailings' })[0] ?? document.body)
    expect(calls).toContain('POST /api/definitions/rule/late-sailings/restore')
  })

  test('says what goes before it is removed for good', async () => {
    const calls = renderAt('/', <ArchivePanel />, {
      'GET /api/archive': [lateSailings],
      'GET /api/definitions/rule/late-sailings/removal': {
        revisions: 3,
        checks: 1,
        findings: 120,
        messages: 0,
        measurements: 0,
        thresholdValues: 0,
      },
      'DELETE /api/definitions/rule/late-sailings': {},
    })
    await userEvent.click(await screen.findByRole('button', { name: 'Remove Late sailings for good' }))
    expect(await screen.findByText(/removes 3 revisions, 1 check, 120 findings\. It cannot/)).toBeInTheDocument()
    expect(calls).not.toContain('DELETE /api/definitions/rule/late-sailings')
    await userEvent.click(screen.getByRole('button', { name: 'Remove for good' }))
    expect(calls).toContain('DELETE /api/definitions/rule/late-sailings')
    expect(screen.queryByText(/It cannot be undone/)).not.toBeInTheDocument()
  })

  test('offers nothing to those of other teams', async () => {
    renderAt('/', <ArchivePanel />, { 'GET /api/archive': [lateSailings], ...decides }, analyst)
    expect(await screen.findByRole('link', { name: 'Late sailings' })).toHaveAttribute('href', '/rules/late-sailings')
    expect(await screen.findByText('Traffic reporting')).toBeInTheDocument()
    await vi.waitFor(() => expect(screen.queryByRole('button')).not.toBeInTheDocument())
  })
})

describe('retiring', () => {
  test('asks for a reason and says what still uses it', async () => {
    const calls = renderAt('/', <Retire kind="query" name="sailings-lately" owner={undefined} />, {
      'GET /api/archive': [],
      'POST /api/definitions/query/sailings-lately/retire': Response.json(
        { detail: '"sailings-lately" is used by the rule late-sailings. Change or retire that first.' },
        { status: 409 },
      ),
    })
    await userEvent.click(await screen.findByText('Retire', { selector: 'summary' }))
    expect(screen.getByRole('button', { name: 'Retire' })).toBeDisabled()
    await userEvent.type(screen.getByLabelText('Why it is retired'), 'no longer asked for')
    await userEvent.click(screen.getByRole('button', { name: 'Retire' }))
    expect(await screen.findByText(/is used by the rule late-sailings/)).toBeInTheDocument()
    expect(screen.getByLabelText('Why it is retired')).toHaveValue('no longer asked for')
    expect(calls).toContain('POST /api/definitions/query/sailings-lately/retire')
  })

  test.each([
    ['what another team owns', 'Traffic reporting', 0],
    ['what one’s own team owns', 'Terminal operations', 1],
    ['what all teams share', undefined, 1],
  ])('is offered for %s: %s', async (_, owner, times) => {
    renderAt(
      '/',
      <Retire kind="query" name="sailings-lately" owner={owner} />,
      { ...decides, 'GET /api/archive': [] },
      analyst,
    )
    await vi.waitFor(() => expect(screen.queryAllByText('Retire', { selector: 'summary' })).toHaveLength(times))
  })
})

test('a page says that its definition was retired, and who may not restore it has no button', async () => {
  renderAt('/', <RetiredNote retired={lateSailings} />, decides, analyst)
  expect(screen.getByText(/by Ines Holm: the line closed/)).toBeInTheDocument()
  await vi.waitFor(() => expect(screen.queryByRole('button', { name: 'Restore' })).not.toBeInTheDocument())
})
