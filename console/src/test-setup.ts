import { configure } from '@testing-library/react'
import '@testing-library/jest-dom/vitest'

// A machine that does other work besides takes longer than the library's second to show a page.
configure({ asyncUtilTimeout: 20_000 })

/** jsdom has none; what comes of it is seen in the browser's journeys. */
class SilentEventSource extends EventTarget {
  close() {}
}
globalThis.EventSource = SilentEventSource as unknown as typeof EventSource

// What one test types is not there in the next.
afterEach(() => localStorage.clear())
