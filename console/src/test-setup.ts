import { configure } from '@testing-library/react'
import '@testing-library/jest-dom/vitest'

// A machine that does other work besides takes longer than the library's second to show a page.
configure({ asyncUtilTimeout: 5_000 })
