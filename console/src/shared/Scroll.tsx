import type { ReactNode } from 'react'

/**
 * What may be wider than the page: it scrolls by itself, by the keyboard too.
 *
 * @param limited whether it may not push the page down either
 */
export function Scroll({ label, limited, children }: { label: string; limited?: boolean; children: ReactNode }) {
  return (
    <div className={limited ? 'scroll limited' : 'scroll'} role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  )
}
