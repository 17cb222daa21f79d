import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import type { Definitions, Written } from '../../api/types'
import { definitionOf, definitionsOf } from '../documents/api'
import { DefinitionForm } from '../documents/DefinitionForm'
import { MailPanel } from '../documents/MailPanel'
import { withLayout, type Layout } from '../fields/layout'
import { MoreFields } from '../fields/MoreFields'
import type { Column } from '../fields/parts'
import { SharedBelongingFields } from '../fields/Belonging'
import { RowsLayout } from '../fields/RowsLayout'
import { rules } from '../rules/api'
import { queryPage } from '../queries/api'
import { t } from '../../messages'

type LayoutDocument = Written<Definitions['layout']>
type RuleText = Written<Definitions['rule']>

const start: LayoutDocument = { kind: 'layout', name: '' }
const covered = [
  'id',
  'kind',
  'name',
  'title',
  'owner',
  'visible_to',
  'columns',
  'sort',
  'group_by',
  'rows_as',
  'rows_in_mail',
  'sheet',
  'extra_columns',
  'still_open',
  'whole_report',
  'fixed',
]

/** A layout that rules share, with the columns of one of them and its mail in this layout. */
export function LayoutPage() {
  const [seenWith, setSeenWith] = useState('')
  const all = useQuery(rules)
  const { name } = useParams()
  const saved = useQuery(definitionsOf('layout'))
  const users = saved.data?.find((each) => each.name === name)?.rules ?? []
  const rule = seenWith || (users[0] ?? all.data?.[0]?.name ?? '')
  const page = useQuery({ ...definitionOf<RuleText>('rule', rule), enabled: rule !== '' })
  const columns = useColumns(page.data?.value.query ?? '')
  return (
    <DefinitionForm<LayoutDocument>
      start={start}
      fresh={t('layouts.new_layout')}
      at={(name) => `/layouts/${name}`}
      saysEmpty={['extra_columns']}
      fields={({ value, put }) => (
        <>
          <div className="fields mt-2">
            <Form.Group controlId="seen-with" className="whole">
              <Form.Label className="mb-0 small quiet">{t('layouts.see_it_with')}</Form.Label>
              <Form.Select size="sm" value={rule} onChange={(event) => setSeenWith(event.target.value)}>
                {(all.data ?? []).map(({ name, title }) => (
                  <option key={name} value={name}>
                    {title}
                  </option>
                ))}
              </Form.Select>
              <Form.Text className="small">{t('layouts.see_it_with_help')}</Form.Text>
            </Form.Group>
          </div>
          <SharedBelongingFields value={value} onChange={put} />
          <RowsLayout layout={value} plain={false} columns={columns} put={put} />
          <MoreFields<LayoutDocument> part="layout" value={value} covered={covered} onChange={put} />
        </>
      )}
      effect={(value) =>
        page.data ? (
          <WithRule rule={page.data.value} layout={value} />
        ) : (
          <section className="sheet">
            <p className="quiet mb-0">{t('layouts.no_rule_to_see_it_with')}</p>
          </section>
        )
      }
    />
  )
}

function useColumns(query: string): Column[] {
  const page = useQuery({ ...queryPage(query), enabled: query !== '' })
  return page.data?.columns ?? []
}

/** The message of a rule as if it had this layout. */
function WithRule({ rule, layout }: { rule: RuleText; layout: LayoutDocument }) {
  return <MailPanel document={JSON.stringify(inLayout(rule, layout))} />
}

function inLayout(rule: RuleText, layout: LayoutDocument): RuleText {
  const own = Object.fromEntries(
    Object.entries(layout).filter(([name]) => !['id', 'kind', 'name', 'title', 'owner', 'private_to'].includes(name)),
  ) as Layout
  return { ...rule, delivery: withLayout(rule.delivery ?? {}, own) }
}
