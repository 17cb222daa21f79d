import type { ReactNode } from 'react'

/** What may be wider than the page: it scrolls by itself, by the keyboard too. */
export function Scroll({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="scroll" role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  )
}
