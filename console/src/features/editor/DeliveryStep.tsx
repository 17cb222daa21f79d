import { Form } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import { FilesField } from './FilesField'
import { LayoutFields } from '../fields/LayoutFields'
import { edited, type Column, type DeliveryPart, type Edits } from '../fields/parts'
import { PeopleField } from '../fields/PeopleField'
import { TemplateField } from '../fields/TemplateField'
import { rich, t } from '../../messages'

const languages = [
  ['', t('shared.english')],
  ['de', t('editor.german')],
  ['nb', t('editor.norwegian')],
] as const

type Props = {
  delivery: DeliveryPart
  plain: boolean
  /** The whole rule, as a preview reads it. */
  document: string
  columns: Column[]
  onChange: (delivery: DeliveryPart) => void
}

/** The recipients, and what the message looks like. */
export function DeliveryStep({ delivery, plain, document, columns, onChange }: Props) {
  const put = (edits: Edits<DeliveryPart>) => onChange(edited(delivery, edits, ['attach']))
  return (
    <>
      <div className="fields">
        <PeopleField id="to" label={t('editor.to')} value={delivery.to} onChange={(to) => put({ to })} />
        <PeopleField id="cc" label={t('editor.cc')} value={delivery.cc} onChange={(cc) => put({ cc })} />
        <PeopleField id="bcc" label={t('editor.bcc')} value={delivery.bcc} onChange={(bcc) => put({ bcc })} />
      </div>
      {delivery['split_by'] && (
        <p className="callout mt-2 mb-0">
          {rich('editor.split_by_one_audience_per', {
            code: (inner) => <code>{inner}</code>,
            column: delivery['split_by'],
            audiences:
              Object.keys(delivery['split_to'] ?? {}).length > 0 &&
              ` (${Object.keys(delivery['split_to'] ?? {}).join(', ')})`,
            others:
              delivery['split_from'] &&
              t('editor.recipients_of_other_values_come', { delivery: delivery['split_from'] }),
          })}
        </p>
      )}
      <div className="fields">
        <Form.Group controlId="split-by">
          <Form.Label className="mb-0 small quiet">{t('editor.split_by_column')}</Form.Label>
          <Form.Select
            size="sm"
            value={delivery['split_by'] ?? ''}
            onChange={(event) => put({ split_by: event.target.value })}
          >
            <option value="">{t('editor.no_split_all_recipients_get')}</option>
            {columns.map((column) => (
              <option key={column.name} value={column.name}>
                {column.label}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Choice
          id="language"
          label={t('shared.language')}
          value={delivery.language}
          options={languages}
          onChange={(language) => put({ language })}
        />
        <TemplateField
          id="subject"
          kind="line"
          label={t('shared.subject')}
          value={delivery.subject ?? ''}
          placeholder={plain ? t('editor.subject_usual_plain') : t('editor.default_number_of_findings_and')}
          document={document}
          onChange={(subject) => put({ subject })}
        />
        <TemplateField
          id="opening"
          kind="paragraph"
          label={t('editor.introduction')}
          value={delivery.opening ?? ''}
          placeholder={t('editor.introduction_none')}
          document={document}
          onChange={(opening) => put({ opening })}
        />
      </div>
      <LayoutFields delivery={delivery} plain={plain} columns={columns} onChange={onChange} />
      <FilesField
        attach={delivery.attach ?? ['csv']}
        plain={plain}
        document={document}
        onChange={(attach) => put({ attach })}
      />
      <div className="mt-3">
        <Form.Check
          id="may-leave"
          type="checkbox"
          label={t('editor.recipients_can_unsubscribe')}
          checked={delivery['allow_unsubscribe'] ?? false}
          onChange={(event) => put({ allow_unsubscribe: event.target.checked })}
        />
        <Form.Check
          id="all-quiet"
          type="checkbox"
          label={plain ? t('editor.also_send_without_rows') : t('editor.also_send_a_message_when')}
          checked={delivery['send_when_quiet'] ?? false}
          onChange={(event) => put({ send_when_quiet: event.target.checked })}
        />
      </div>
    </>
  )
}
