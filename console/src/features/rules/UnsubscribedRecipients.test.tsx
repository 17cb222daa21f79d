import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { vi } from 'vitest'
import { renderAt } from '../../shared/render.test-kit'
import { UnsubscribedRecipients } from './UnsubscribedRecipients'

test('a reader who stopped the mails is named, and mailed again if they asked for it', async () => {
  vi.spyOn(window, 'confirm').mockReturnValue(true)
  const gone = {
    address: 'per.aune@skerryline.example',
    unsubscribedAt: '2026-11-24T04:40:00Z',
    resubscribedAt: null,
    resubscribedBy: null,
  }
  const back = { ...gone, address: 'siv.tangen@skerryline.example', resubscribedAt: '2026-11-25T04:40:00Z' }
  const calls = renderAt('/rules/late', <UnsubscribedRecipients name="late" />, {
    'GET /api/rules/late/unsubscribed': [gone, back],
    'DELETE /api/rules/late/unsubscribed/per.aune%40skerryline.example': [],
  })
  await userEvent.click(await screen.findByRole('button', { name: /Resubscribe: per.aune/ }))
  expect(screen.queryByText(/siv.tangen/)).not.toBeInTheDocument()
  expect(calls).toContain('DELETE /api/rules/late/unsubscribed/per.aune%40skerryline.example')
})
