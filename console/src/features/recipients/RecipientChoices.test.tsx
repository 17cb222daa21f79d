import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { vi } from 'vitest'
import { renderAt } from '../../shared/render.test-kit'
import { RecipientChoices } from './RecipientChoices'
import type { ReaderChoice } from './choice'

const gone = {
  address: 'per.aune@skerryline.example',
  unsubscribedAt: '2026-11-24T04:40:00Z',
  resubscribedAt: null,
  resubscribedBy: null,
}
const each: ReaderChoice = {
  address: 'siv.tangen@skerryline.example',
  pausedUntil: null,
  collect: null,
  collectHour: null,
  collectDay: null,
  filesByLink: false,
  nextCollection: null,
  chosenAt: '2026-11-25T04:40:00Z',
}

test('a recipient who unsubscribed is named, and mailed again if they asked for it', async () => {
  vi.spyOn(window, 'confirm').mockReturnValue(true)
  const back = { ...gone, address: 'marit.lunde@skerryline.example', resubscribedAt: '2026-11-25T04:40:00Z' }
  const calls = renderAt('/rules/late', <RecipientChoices of={{ kind: 'rules', name: 'late' }} />, {
    'GET /api/rules/late/unsubscribed': [gone, back],
    'GET /api/rules/late/reader-choices': [],
    'DELETE /api/rules/late/unsubscribed/per.aune%40skerryline.example': [],
  })
  await userEvent.click(await screen.findByRole('button', { name: /Resubscribe: per.aune/ }))
  expect(screen.queryByText(/marit.lunde/)).not.toBeInTheDocument()
  expect(calls).toContain('DELETE /api/rules/late/unsubscribed/per.aune%40skerryline.example')
})

test('a pause, a collection and files as links are said, and ended when the owner wants it', async () => {
  vi.spyOn(window, 'confirm').mockReturnValue(true)
  const choices: ReaderChoice[] = [
    { ...each, pausedUntil: '2026-12-09T06:00:00Z', collect: 'daily', collectHour: 7 },
    {
      ...each,
      address: 'desk@skerryline.example',
      collect: 'weekly',
      collectHour: 7,
      collectDay: 'monday',
      nextCollection: '2026-12-07T06:00:00Z',
      filesByLink: true,
    },
  ]
  const calls = renderAt('/setup/mail', <RecipientChoices of={{ kind: 'round-ups', name: 'week' }} />, {
    'GET /api/round-ups/week/unsubscribed': [],
    'GET /api/round-ups/week/reader-choices': choices,
    'DELETE /api/round-ups/week/reader-choices/siv.tangen%40skerryline.example': [],
  })
  expect(await screen.findByText(/^Paused until/)).not.toHaveTextContent('daily')
  expect(screen.getByText(/^Collected weekly\. Next: .* · Files as links\.$/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: /End choice: siv.tangen/ }))
  expect(calls).toContain('DELETE /api/round-ups/week/reader-choices/siv.tangen%40skerryline.example')
})

test('nothing is said where nobody chose anything', () => {
  renderAt('/rules/late', <RecipientChoices of={{ kind: 'rules', name: 'late' }} />, {
    'GET /api/rules/late/unsubscribed': [],
    'GET /api/rules/late/reader-choices': [],
  })
  expect(screen.queryByText('Chosen by recipients')).not.toBeInTheDocument()
})
