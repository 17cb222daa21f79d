import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { vi } from 'vitest'
import { renderAt } from '../../shared/render.test-kit'
import { Leavers } from './Leavers'

test('a reader who stopped the mails is named, and mailed again if they asked for it', async () => {
  vi.spyOn(window, 'confirm').mockReturnValue(true)
  const gone = {
    address: 'per.aune@skerryline.example',
    leftAt: '2026-11-24T04:40:00Z',
    returnedAt: null,
    returnedBy: null,
  }
  const back = { ...gone, address: 'siv.tangen@skerryline.example', returnedAt: '2026-11-25T04:40:00Z' }
  const calls = renderAt('/rules/late', <Leavers name="late" />, {
    'GET /api/rules/late/leavers': [gone, back],
    'DELETE /api/rules/late/leavers/per.aune%40skerryline.example': [],
  })
  await userEvent.click(await screen.findByRole('button', { name: /Resubscribe: per.aune/ }))
  expect(screen.queryByText(/siv.tangen/)).not.toBeInTheDocument()
  expect(calls).toContain('DELETE /api/rules/late/leavers/per.aune%40skerryline.example')
})
