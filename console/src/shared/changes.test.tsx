import { act, render } from '@testing-library/react'
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { useChanges } from './changes'

class Connection extends EventTarget {
  static readonly CLOSED = 2
  static opened: Connection[] = []
  readyState = 1

  constructor(readonly address: string) {
    super()
    Connection.opened.push(this)
  }

  close() {
    this.readyState = Connection.CLOSED
  }
}

const usual = globalThis.EventSource
const read = vi.fn(() => Promise.resolve('rows'))

function Page() {
  useChanges()
  useQuery({ queryKey: ['findings', 'late-sailings'], queryFn: read })
  return null
}

async function tell(event: Event) {
  await act(async () => {
    Connection.opened.at(-1)?.dispatchEvent(event)
    await vi.advanceTimersByTimeAsync(10)
  })
}

beforeEach(async () => {
  vi.useFakeTimers()
  read.mockClear()
  Connection.opened = []
  globalThis.EventSource = Connection as unknown as typeof EventSource
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Page />
    </QueryClientProvider>,
  )
  await act(() => vi.advanceTimersByTimeAsync(10))
})

afterEach(() => {
  vi.useRealTimers()
  globalThis.EventSource = usual
})

it('reads again when the connection stands, since something may have changed before', async () => {
  expect(read).toHaveBeenCalledTimes(1)
  await tell(new Event('open'))
  expect(read).toHaveBeenCalledTimes(2)
})

it('reads again what changed and nothing else', async () => {
  await tell(new MessageEvent('changed', { data: 'mail' }))
  expect(read).toHaveBeenCalledTimes(1)
  await tell(new MessageEvent('changed', { data: 'mail findings' }))
  expect(read).toHaveBeenCalledTimes(2)
})

it('connects again after an answer that the browser takes as final', async () => {
  Connection.opened[0]?.close()
  await tell(new Event('error'))
  await act(() => vi.advanceTimersByTimeAsync(4000))
  expect(Connection.opened).toHaveLength(1)
  await act(() => vi.advanceTimersByTimeAsync(2000))
  expect(Connection.opened).toHaveLength(2)
})

it('leaves a connection that the browser renews to the browser', async () => {
  await tell(new Event('error'))
  await act(() => vi.advanceTimersByTimeAsync(20_000))
  expect(Connection.opened).toHaveLength(1)
})
