import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { Scroll } from '../../shared/Scroll'
import { numberWords } from '../../shared/words'
import { PeopleField } from '../fields/PeopleField'
import { audiencesOf, type Audience } from './api'
import { t } from '../../messages'

const namedBy = {
  RULE: t('editor.named_by_rule'),
  QUERY: t('editor.named_by_query'),
  COLUMN: t('editor.named_by_column'),
  OTHERS: t('editor.named_by_others'),
  NOBODY: t('editor.named_by_nobody'),
} as const

type Props = {
  /** The rule as it can be previewed. */
  document: string
  /** Recipients by value that the rule names; undefined for copies, whose recipients a query names. */
  named?: Record<string, string[]>
  onChange?: (named: Record<string, string[]>) => void
}

/** Who gets what: each value that occurs now or that the rule names, its rows and its recipients, those with nobody first. */
export function AudienceTable({ document, named, onChange }: Props) {
  const look = useMutation({ mutationFn: () => audiencesOf(document) })
  const [changing, setChanging] = useState<string | null>(null)
  const [onlyNobody, setOnlyNobody] = useState(false)
  const seen = look.data?.audiences ?? []
  const unseen: Audience[] = Object.keys(named ?? {})
    .filter((value) => !seen.some((each) => each.value === value))
    .map((value) => ({ value, rows: null, to: named?.[value] ?? [], namedBy: 'RULE', problem: null }))
  // What was changed since the rows were read shows at once.
  const rows = [...seen.map((each) => withNamed(each, named)), ...unseen]
  const shown = onlyNobody ? rows.filter((each) => each.to.length === 0) : rows
  const nobody = rows.filter((each) => each.to.length === 0).length
  return (
    <div className="mt-3">
      <div className="d-flex gap-3 flex-wrap align-items-center">
        <Button size="sm" variant="plain" disabled={look.isPending} onClick={() => look.mutate()}>
          {look.isPending ? t('shared.reading_the_source') : t('editor.show_who_gets_what')}
        </Button>
        {look.data && (
          <span className={nobody > 0 ? 'small problem-text' : 'small quiet'} role="status">
            {t('editor.values_and_nobody', { all: look.data.all, nobody })}
          </span>
        )}
        {nobody > 0 && (
          <Form.Check
            id="only-nobody"
            type="checkbox"
            label={t('editor.only_with_nobody')}
            checked={onlyNobody}
            onChange={(event) => setOnlyNobody(event.target.checked)}
          />
        )}
      </div>
      <Refusal error={look.error} />
      {shown.length > 0 && (
        <Scroll height="short" label={t('editor.who_gets_what')}>
          <Table size="sm" className="mt-2 mb-0">
            <thead>
              <tr>
                <th>{look.data?.by ?? t('editor.audience_value')}</th>
                {named && <th className="num">{t('editor.audience_rows')}</th>}
                <th>{t('shared.recipients')}</th>
                <th>{t('editor.named_by')}</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((each) => (
                <tr key={each.value}>
                  <td>{each.value || <span className="quiet">{t('editor.no_value')}</span>}</td>
                  {named && (
                    <td className="num">
                      {each.rows === null ? '' : each.rows === 0 ? t('editor.no_rows_now') : numberWords(each.rows)}
                    </td>
                  )}
                  <td>
                    {changing === each.value && onChange ? (
                      <PeopleField
                        id={`split-${each.value}`}
                        label={t('editor.recipients_of_value', { value: each.value })}
                        value={named?.[each.value] ?? []}
                        onChange={(to) => onChange(withRecipients(named ?? {}, each.value, to))}
                      />
                    ) : (
                      each.to.join(', ') || <span className="problem-text">{t('shared.nobody')}</span>
                    )}
                    {each.problem && <div className="small problem-text">{each.problem}</div>}
                  </td>
                  <td className="text-nowrap">
                    {namedBy[each.namedBy]}{' '}
                    {onChange && each.value !== '' && (
                      <Button
                        size="sm"
                        variant="plain"
                        aria-label={t('editor.change_recipients_of', { value: each.value })}
                        aria-expanded={changing === each.value}
                        onClick={() => setChanging(changing === each.value ? null : each.value)}
                      >
                        {changing === each.value ? t('shared.close') : t('editor.change')}
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Scroll>
      )}
    </div>
  )
}

/** The audience with the recipients that the rule names for its value, if it names some. */
function withNamed(audience: Audience, named: Record<string, string[]> | undefined): Audience {
  const own = named?.[audience.value] ?? []
  if (own.length > 0) return { ...audience, to: own, namedBy: 'RULE' }
  return audience.namedBy === 'RULE' && named ? { ...audience, to: [], namedBy: 'NOBODY' } : audience
}

const withRecipients = (named: Record<string, string[]>, value: string, to: string[]) =>
  Object.fromEntries(
    Object.entries({ ...named, [value]: to }).filter(([each, recipients]) => each !== value || recipients.length > 0),
  )
