import { Form } from 'react-bootstrap'
import type { Definitions, Written } from '../../api/types'
import { DefinitionForm } from '../documents/DefinitionForm'
import { ListField } from '../fields/ListField'
import { SharedBelongingFields } from '../fields/Belonging'
import { t } from '../../messages'

type ThresholdDocument = Written<Definitions['threshold']>

const start: ThresholdDocument = { kind: 'threshold', name: '' }

/** What a threshold is; its values are given on its page, with dates and reasons. */
export function ThresholdForm() {
  return (
    <DefinitionForm<ThresholdDocument>
      start={start}
      fresh={t('thresholds.new_threshold')}
      at={(name) => `/thresholds/${name}`}
      fields={({ value, put }) => (
        <div className="fields mt-2">
          <Form.Group controlId="description" className="whole">
            <Form.Label className="mb-0 small quiet">{t('thresholds.what_it_means')}</Form.Label>
            <Form.Control
              size="sm"
              value={value.description ?? ''}
              onChange={(event) => put({ description: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="unit">
            <Form.Label className="mb-0 small quiet">{t('shared.unit')}</Form.Label>
            <Form.Control size="sm" value={value.unit ?? ''} onChange={(event) => put({ unit: event.target.value })} />
          </Form.Group>
          <SharedBelongingFields value={value} onChange={put} />
          <ListField
            id="key"
            label={t('thresholds.key_columns')}
            help={t('thresholds.key_columns_help')}
            value={value.key}
            onChange={(key) => put({ key })}
          />
        </div>
      )}
    />
  )
}
