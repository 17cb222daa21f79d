import { Choice } from './Choice'

type Props = {
  id: string
  label: string
  value: string
  options: [string, string][]
  any?: string
  onChange: (value: string) => void
}

/** A filter of a list: one of several values, or any. */
export function Pick({ options, any = 'any', ...field }: Props) {
  return <Choice {...field} options={[['', any], ...options]} large />
}
