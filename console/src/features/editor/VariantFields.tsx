import { Button, Form } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import { edited, type DeliveryPart, type Edits } from '../fields/parts'
import { PeopleField } from '../fields/PeopleField'
import { TemplateField } from '../fields/TemplateField'
import { FilesField } from './FilesField'
import { t } from '../../messages'

type Variant = NonNullable<DeliveryPart['variants']>[number]

const asForOthers = ['', t('editor.as_for_the_others')] as const
const shown = [asForOthers, ['rows', t('editor.show_rows_and_files')], ['link', t('editor.show_link_only')]] as const
const rowsAs = [
  asForOthers,
  ['table', t('editor.rows_as_table')],
  ['list', t('editor.rows_as_list')],
  ['figures', t('editor.rows_as_figures')],
] as const

type Props = {
  variants: Variant[]
  attach: NonNullable<DeliveryPart['attach']>
  plain: boolean
  document: string
  onChange: (variants: Variant[]) => void
}

const listOf = (people: Variant['for']) => (typeof people === 'string' ? [people] : people)

/** What some of the recipients get differently: another text, other files, another form. */
export function VariantFields({ variants, attach, plain, document, onChange }: Props) {
  const change = (index: number, edits: Edits<Variant>) =>
    onChange(variants.map((each, at) => (at === index ? edited(each, edits, ['for', 'attach']) : each)))
  return (
    <fieldset className="mt-3">
      <legend>{t('editor.variants')}</legend>
      {variants.length === 0 && <p className="small quiet mb-1">{t('editor.no_variants')}</p>}
      {variants.map((variant, index) => (
        <div key={index} className="one-file">
          <div className="fields">
            <PeopleField
              id={`variant-${index}-for`}
              label={t('shared.for')}
              value={listOf(variant.for)}
              onChange={(people) => change(index, { for: people })}
            />
            <TemplateField
              id={`variant-${index}-subject`}
              kind="line"
              label={t('shared.subject')}
              value={variant.subject ?? ''}
              placeholder={t('editor.as_for_the_others')}
              document={document}
              onChange={(subject) => change(index, { subject })}
            />
            <TemplateField
              id={`variant-${index}-opening`}
              kind="paragraph"
              label={t('editor.introduction')}
              value={variant.opening ?? ''}
              placeholder={t('editor.as_for_the_others')}
              document={document}
              onChange={(opening) => change(index, { opening })}
            />
            <TemplateField
              id={`variant-${index}-closing`}
              kind="paragraph"
              label={t('editor.closing')}
              value={variant.closing ?? ''}
              placeholder={t('editor.as_for_the_others')}
              document={document}
              onChange={(closing) => change(index, { closing })}
            />
            <Choice
              id={`variant-${index}-show`}
              label={t('editor.message_contains')}
              value={variant.show}
              options={shown}
              onChange={(show) => change(index, { show })}
            />
            <Choice
              id={`variant-${index}-rows`}
              label={t('editor.rows_in_the_message')}
              value={variant.rows_as}
              options={rowsAs}
              onChange={(as) => change(index, { rows_as: as })}
            />
          </div>
          <Form.Check
            id={`variant-${index}-files`}
            className="mt-2"
            label={t('editor.other_files')}
            checked={variant.attach !== undefined}
            onChange={(event) => change(index, { attach: event.target.checked ? attach : undefined })}
          />
          {variant.attach !== undefined && (
            <FilesField
              id={`variant-${index}-file`}
              attach={variant.attach}
              plain={plain}
              document={document}
              onChange={(files) => change(index, { attach: files })}
            />
          )}
          <div className="d-flex">
            <Button
              size="sm"
              variant="plain"
              className="ms-auto mt-2"
              aria-label={t('editor.remove_variant', { number: index + 1 })}
              onClick={() => onChange(variants.filter((_, at) => at !== index))}
            >
              {t('shared.remove')}
            </Button>
          </div>
        </div>
      ))}
      <Button size="sm" variant="plain" className="mt-1" onClick={() => onChange([...variants, { for: [] }])}>
        {t('editor.add_variant')}
      </Button>
    </fieldset>
  )
}
