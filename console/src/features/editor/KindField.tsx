import { Form } from 'react-bootstrap'
import { t } from '../../messages'
import type { Kind } from './kind'

const kinds: [Kind, string, string][] = [
  ['incremental', t('editor.kind_incremental'), t('editor.kind_incremental_help')],
  ['full', t('editor.kind_full'), t('editor.kind_full_help')],
  ['plain', t('editor.kind_plain'), t('editor.kind_plain_help')],
]

/** What the rule sends, as the first question of the editor. */
export function KindField({ kind, onChange }: { kind: Kind; onChange: (kind: Kind) => void }) {
  return (
    <fieldset className="kinds">
      <legend>{t('editor.kind')}</legend>
      {kinds.map(([code, words, help]) => (
        <div key={code}>
          <Form.Check
            id={`kind-${code}`}
            type="radio"
            name="kind"
            label={words}
            checked={kind === code}
            aria-describedby={`kind-${code}-help`}
            onChange={() => onChange(code)}
          />
          <p id={`kind-${code}-help`} className="small quiet">
            {help}
          </p>
        </div>
      ))}
    </fieldset>
  )
}
