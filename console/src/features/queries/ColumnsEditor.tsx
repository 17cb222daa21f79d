import { Form, Table } from 'react-bootstrap'
import { Scroll } from '../../shared/Scroll'
import type { ColumnMeaning } from './api'
import { t } from '../../messages'

type Columns = Record<string, ColumnMeaning>

const tidy = (meaning: ColumnMeaning): ColumnMeaning =>
  Object.fromEntries(
    Object.entries(meaning).filter(
      ([, value]) => value !== '' && !(typeof value === 'object' && Object.keys(value).length === 0),
    ),
  )

/** `C = cancelled; T = training` */
const wordsText = (words: Record<string, string> | undefined) =>
  Object.entries(words ?? {})
    .map(([code, word]) => `${code} = ${word}`)
    .join('; ')
const readWords = (text: string) =>
  Object.fromEntries(
    text
      .split(/[;\n]/)
      .map((each) => each.split('='))
      .filter((pair) => pair.length >= 2)
      .map(([code, ...word]) => [(code ?? '').trim(), word.join('=').trim()]),
  )

/** What each column is called, counted in, written like, and what its codes mean. */
export function ColumnsEditor({
  names,
  columns,
  onChange,
}: {
  names: string[]
  columns: Columns
  onChange: (columns: Columns) => void
}) {
  const all = [...new Set([...names, ...Object.keys(columns)])]
  if (all.length === 0) return null
  const set = (name: string, part: Partial<ColumnMeaning>) =>
    onChange({ ...columns, [name]: tidy({ ...columns[name], ...part }) })
  return (
    <fieldset className="mt-3">
      <legend>{t('queries.columns')}</legend>
      <Scroll label={t('queries.columns')}>
        <Table size="sm">
          <thead>
            <tr>
              <th>{t('queries.column')}</th>
              <th>{t('shared.label')}</th>
              <th>{t('shared.unit')}</th>
              <th>{t('queries.format')}</th>
              <th>{t('queries.words_for_codes')}</th>
              <th>{t('queries.link')}</th>
            </tr>
          </thead>
          <tbody>
            {all.map((name) => (
              <tr key={name}>
                <td>
                  <code>{name}</code>
                  {names.length > 0 && !names.includes(name) && (
                    <div className="small problem-text">{t('queries.not_returned')}</div>
                  )}
                </td>
                <td>
                  <Form.Control
                    size="sm"
                    aria-label={t('queries.label_of', { name })}
                    value={columns[name]?.label ?? ''}
                    placeholder={name}
                    onChange={(event) => set(name, { label: event.target.value })}
                  />
                </td>
                <td>
                  <Form.Control
                    size="sm"
                    className="narrow"
                    aria-label={t('queries.unit_of', { name })}
                    value={columns[name]?.unit ?? ''}
                    onChange={(event) => set(name, { unit: event.target.value })}
                  />
                </td>
                <td>
                  <Form.Control
                    size="sm"
                    className="narrow"
                    aria-label={t('queries.format_of', { name })}
                    value={columns[name]?.format ?? ''}
                    placeholder={t('queries.usual')}
                    onChange={(event) => set(name, { format: event.target.value })}
                  />
                </td>
                <td>
                  <Form.Control
                    size="sm"
                    aria-label={t('queries.words_for_codes_of', { name })}
                    defaultValue={wordsText(columns[name]?.words)}
                    placeholder={t('queries.c_cancelled_t_training')}
                    onBlur={(event) => set(name, { words: readWords(event.target.value) })}
                  />
                </td>
                <td>
                  <Form.Control
                    size="sm"
                    aria-label={t('queries.link_of', { name })}
                    value={columns[name]?.link ?? ''}
                    placeholder={t('queries.link_example', { field: `{{${name}}}` })}
                    onChange={(event) => set(name, { link: event.target.value })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
    </fieldset>
  )
}
