import { lazy, Suspense } from 'react'
import { Form } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import { AudienceTable } from './AudienceTable'
import { SplitFields } from './SplitFields'
import { FilesField } from './FilesField'
import { LayoutFields } from '../fields/LayoutFields'
import { edited, type Column, type DeliveryPart, type Edits } from '../fields/parts'
import { PeopleField } from '../fields/PeopleField'
import { TemplateField } from '../fields/TemplateField'
import { t } from '../../messages'

const VariantFields = lazy(() => import('./VariantFields').then(({ VariantFields: fields }) => ({ default: fields })))

const languages = [
  ['', t('shared.english')],
  ['de', t('editor.german')],
  ['nb', t('editor.norwegian')],
] as const

type Props = {
  delivery: DeliveryPart
  plain: boolean
  /** Whether the rule has personal copies. */
  copies: boolean
  /** The whole rule, as a preview reads it. */
  document: string
  columns: Column[]
  onChange: (delivery: DeliveryPart) => void
}

/** The recipients, and what the message looks like. */
export function DeliveryStep({ delivery, plain, copies, document, columns, onChange }: Props) {
  const put = (edits: Edits<DeliveryPart>) => onChange(edited(delivery, edits, ['attach']))
  return (
    <>
      <div className="fields">
        <PeopleField id="to" label={t('editor.to')} value={delivery.to} onChange={(to) => put({ to })} />
        <PeopleField id="cc" label={t('editor.cc')} value={delivery.cc} onChange={(cc) => put({ cc })} />
        <PeopleField id="bcc" label={t('editor.bcc')} value={delivery.bcc} onChange={(bcc) => put({ bcc })} />
      </div>
      <div className="fields">
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
        <TemplateField
          id="closing"
          kind="paragraph"
          label={t('editor.closing')}
          value={delivery.closing ?? ''}
          placeholder={t('editor.closing_none')}
          document={document}
          onChange={(closing) => put({ closing })}
        />
      </div>
      {copies ? (
        <AudienceTable document={document} />
      ) : (
        <SplitFields delivery={delivery} columns={columns} document={document} onChange={put} />
      )}
      <LayoutFields delivery={delivery} plain={plain} columns={columns} onChange={onChange} />
      <FilesField
        attach={delivery.attach ?? ['csv']}
        plain={plain}
        document={document}
        onChange={(attach) => put({ attach })}
      />
      <Suspense fallback={null}>
        <VariantFields
          variants={delivery.variants ?? []}
          attach={delivery.attach ?? ['csv']}
          plain={plain}
          document={document}
          onChange={(variants) => put({ variants })}
        />
      </Suspense>
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
        <ReaderChoices
          plain={plain}
          refused={delivery['refuse_choices'] ?? []}
          onChange={(refused) => put({ refuse_choices: refused })}
        />
      </div>
    </>
  )
}

const choices = [
  ['pause', t('editor.recipients_may_pause')],
  ['collect', t('editor.recipients_may_collect')],
  ['link', t('editor.recipients_may_get_links')],
] as const
type Choice = (typeof choices)[number][0]

/** What recipients may choose by the link in each message; the document names what they may not. */
function ReaderChoices({
  plain,
  refused,
  onChange,
}: {
  plain: boolean
  refused: Choice[]
  onChange: (refused: Choice[]) => void
}) {
  return (
    <fieldset className="mt-2">
      <legend>{t('editor.recipients_may')}</legend>
      {choices.map(([choice, label]) => (
        <Form.Check
          key={choice}
          id={`may-${choice}`}
          type="checkbox"
          label={label}
          checked={!refused.includes(choice)}
          onChange={(event) =>
            onChange(
              event.target.checked
                ? refused.filter((each) => each !== choice)
                : choices.map(([each]) => each).filter((each) => each === choice || refused.includes(each)),
            )
          }
        />
      ))}
      {!plain && <p className="small quiet mb-0">{t('editor.recipients_may_help')}</p>}
    </fieldset>
  )
}
