import type { ReactNode } from 'react'

/**
 * What may be wider than the page: it scrolls by itself, by the keyboard too.
 *
 * @param height if it may not push the page down either: its headings then stay in view
 */
export function Scroll({ label, height, children }: { label: string; height?: 'short' | 'tall'; children: ReactNode }) {
  return (
    <div className={height ? `scroll limited ${height}` : 'scroll'} role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  )
}
