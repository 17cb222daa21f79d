import { Button } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import { t } from '../../messages'
import type { DeliveryPart } from '../fields/parts'
import { MoreFields } from '../fields/MoreFields'
import { edited, type Edits } from '../fields/parts'
import { TemplateField } from '../fields/TemplateField'

type Written = NonNullable<DeliveryPart['attach']>[number]
type File = Exclude<Written, string>
type Format = NonNullable<File['format']>

const formats: [Format, string][] = [
  ['xlsx', t('editor.workbook')],
  ['csv', 'CSV'],
  ['pdf', 'PDF'],
  ['html', 'HTML'],
  ['json', 'JSON'],
]
const rowsOf: ['updates' | 'open' | 'all', string][] = [
  ['open', t('editor.file_rows_open')],
  ['updates', t('editor.file_rows_updates')],
  ['all', t('editor.file_rows_all')],
]
const covered = ['format', 'rows', 'file']
/** What only files of some formats have. */
const only: Partial<Record<string, Format[]>> = {
  delimiter: ['csv'],
  decimal: ['csv'],
  encoding: ['csv'],
  byte_order_mark: ['csv'],
  paper: ['pdf', 'xlsx'],
  orientation: ['pdf', 'xlsx'],
  margin: ['pdf'],
  header: ['pdf'],
  footer: ['pdf'],
  frozen_columns: ['xlsx'],
  filter: ['xlsx'],
}

const fileOf = (written: Written): File => (typeof written === 'string' ? { format: written } : written)

/** A file that says nothing but its format is that format alone, as the service writes it. */
const writtenOf = (file: File): Written => (file.format && Object.keys(file).length === 1 ? file.format : file)

/** The file with these edits, without what is usual or empty. */
const changed = (file: File, edits: Edits<File>): File =>
  edited(file, { ...edits, rows: (edits.rows ?? file.rows) === 'open' ? undefined : (edits.rows ?? file.rows) })

type Props = { id?: string; attach: Written[]; plain: boolean; document: string; onChange: (attach: Written[]) => void }

/** The files of a message, each with the rows that it holds and its name. */
export function FilesField({ id = 'file', attach, plain, document, onChange }: Props) {
  const files = attach.map(fileOf)
  const put = (next: File[]) => onChange(next.map(writtenOf))
  const change = (index: number, edits: Edits<File>) =>
    put(files.map((file, i) => (i === index ? changed(file, edits) : file)))
  return (
    <fieldset className="mt-3">
      <legend>{t('editor.files')}</legend>
      {files.length === 0 && <p className="small quiet mb-1">{t('editor.no_files')}</p>}
      {files.map((file, index) => (
        <div key={index} className="one-file">
          <div className="fields">
            <Choice
              id={`${id}-${index}-format`}
              label={t('editor.file_format')}
              value={file.format ?? 'csv'}
              options={formats}
              onChange={(format) => change(index, { format: format || 'csv' })}
            />
            {!plain && (
              <Choice
                id={`${id}-${index}-rows`}
                label={t('editor.file_rows')}
                value={file.rows ?? 'open'}
                options={rowsOf}
                onChange={(rows) => change(index, { rows: rows || 'open' })}
              />
            )}
            <TemplateField
              id={`${id}-${index}-name`}
              kind="file"
              label={t('editor.file_name')}
              value={file.file ?? ''}
              placeholder={t('editor.file_name_usual')}
              document={document}
              onChange={(name) => change(index, { file: name })}
            />
          </div>
          <div className="d-flex gap-2 align-items-start">
            <MoreFields
              title={t('editor.file_more')}
              part="attachment"
              value={file}
              covered={[
                ...covered,
                ...Object.entries(only).flatMap(([name, of]) => (of?.includes(file.format ?? 'csv') ? [] : [name])),
              ]}
              onChange={(next) => put(files.map((each, i) => (i === index ? next : each)))}
            />
            <Button
              size="sm"
              variant="plain"
              className="ms-auto mt-2"
              aria-label={t('editor.file_remove', { number: index + 1 })}
              onClick={() => put(files.filter((_, i) => i !== index))}
            >
              {t('shared.remove')}
            </Button>
          </div>
        </div>
      ))}
      <Button size="sm" variant="plain" className="mt-1" onClick={() => put([...files, { format: 'csv' }])}>
        {t('editor.file_add')}
      </Button>
    </fieldset>
  )
}
