import { useEffect } from 'react'

/** The page's name in the browser's tab. */
export function useTitle(title: string) {
  useEffect(() => {
    document.title = `${title} · Odd Sentry`
  }, [title])
}
