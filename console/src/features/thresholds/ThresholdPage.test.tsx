import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { renderAt } from '../../shared/render.test-kit'
import { ThresholdPage } from './ThresholdPage'

const page = {
  threshold: { name: 'poor_load', title: 'poor load', unit: 'heads', description: null, key: ['route'], number: 112, values: 2, planned: 1, rules: ['poorly-used-routes'] },
  values: [{ key: [], from: null, number: 112, when: 'NOW' }, { key: ['Holm – Vik'], from: '2027-06-01', number: 95, when: 'PLANNED' }],
  history: [{ key: [], from: null, number: 112, setBy: 'Ines Holm', setAt: '2026-11-24T04:40:00Z', remark: 'agreed in May' }],
}

test('shows values, who changed them and why, and counts the effect of a new one', async () => {
  renderAt('/thresholds/poor_load', <Routes><Route path="/thresholds/:name" element={<ThresholdPage />} /></Routes>, {
    'GET /api/thresholds/poor_load': page,
    'POST /api/thresholds/poor_load/effect': [{ rule: 'poorly-used-routes', title: 'Poorly used routes', before: 3, after: 5, refused: null }],
  })
  expect(await screen.findByText('planned')).toBeInTheDocument()
  expect(screen.getByText('agreed in May')).toBeInTheDocument()
  await userEvent.type(screen.getByLabelText(/^Value/), '120')
  expect(screen.getByRole('button', { name: 'Save the value' })).toBeDisabled()
  await userEvent.click(screen.getByRole('button', { name: 'Count the effect' }))
  expect(await screen.findByText('Poorly used routes: 3 exceptions now, 5 with this value')).toBeInTheDocument()
})
