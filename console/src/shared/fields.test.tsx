import { useState } from 'react'
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter, useSearchParams } from 'react-router'
import { expect, test } from 'vitest'
import { NumberField } from './NumberField'
import { SearchField } from './SearchField'

function Page() {
  const [search, setSearch] = useSearchParams()
  return (
    <>
      <SearchField
        aria-label="Search"
        value={search.get('q') ?? ''}
        onSettled={(q) => setSearch(q ? { q } : {}, { replace: true })}
      />
      <output>{search.get('q')}</output>
      <button type="button" onClick={() => setSearch({ q: 'kept filter' })}>
        Choose a filter
      </button>
    </>
  )
}

test.each([0, 30, 80, 250])('a search keeps every key, typed %i ms apart', async (delay) => {
  const user = userEvent.setup({ delay })
  render(
    <MemoryRouter>
      <Page />
    </MemoryRouter>,
  )
  await user.type(screen.getByRole('searchbox'), 'late UA')
  expect(screen.getByRole<HTMLInputElement>('searchbox').value).toBe('late UA')
  expect(await screen.findByText('late UA')).toBeTruthy()
})

test('what is chosen elsewhere stands in the field', async () => {
  const user = userEvent.setup()
  render(
    <MemoryRouter>
      <Page />
    </MemoryRouter>,
  )
  await user.type(screen.getByRole('searchbox'), 'la')
  await user.click(screen.getByRole('button'))
  expect(screen.getByRole<HTMLInputElement>('searchbox').value).toBe('kept filter')
})

function LatePage({ after }: { after: number }) {
  const [value, setValue] = useState('')
  return (
    <>
      <SearchField
        aria-label="Search"
        value={value}
        onSettled={(typed) => void setTimeout(() => setValue(typed), after)}
      />
      <output>{value}</output>
    </>
  )
}

test.each([50, 180, 400])('a search keeps every key though the page answers %i ms late', async (after) => {
  const user = userEvent.setup({ delay: 260 })
  render(<LatePage after={after} />)
  const field = screen.getByRole<HTMLInputElement>('searchbox')
  let typed = ''
  await user.click(field)
  for (const key of 'late UA') {
    await user.keyboard(key)
    typed += key
    expect(field.value).toBe(typed)
  }
  expect(await screen.findByText('late UA', {}, { timeout: 2000 })).toBeTruthy()
  expect(field.value).toBe('late UA')
})

function Counted({ onChange }: { onChange: (value: number) => void }) {
  const [value, setValue] = useState(15)
  return (
    <NumberField
      aria-label="Minutes"
      value={value}
      least={1}
      most={720}
      onChange={(next) => {
        setValue(next)
        onChange(next)
      }}
    />
  )
}

test('digits that are deleted are gone, and an empty field counts as before until it is left', async () => {
  const user = userEvent.setup()
  const seen: number[] = []
  render(<Counted onChange={(value) => seen.push(value)} />)
  const field = screen.getByRole<HTMLInputElement>('spinbutton')
  await user.type(field, '{Backspace}{Backspace}')
  expect(field.value).toBe('')
  await user.type(field, '20')
  expect(field.value).toBe('20')
  expect(seen).toEqual([1, 2, 20])
  await user.clear(field)
  await user.tab()
  expect(field.value).toBe('20')
})
