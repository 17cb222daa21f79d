import type { ReactNode } from 'react'

/** A value that leads to its record in the system it comes from, in a tab of its own; the value alone where it leads nowhere. */
export function LinkedText({ to, children }: { to: string | null | undefined; children: ReactNode }) {
  // The service gives no other addresses; a page never trusts that alone.
  if (!to || !/^(https?:\/\/|mailto:)/i.test(to)) return children
  return (
    <a href={to} target="_blank" rel="noopener noreferrer">
      {children}
    </a>
  )
}
