import { useState, type ReactNode } from 'react'
import { Form } from 'react-bootstrap'
import { Link, useNavigate, useParams } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useKept } from '../../shared/kept'
import { Loaded } from '../../shared/Loading'
import { nameFrom } from '../../shared/names'
import { Refusal } from '../../shared/Refusal'
import { TypedHere } from '../../shared/TypedHere'
import { useTitle } from '../../shared/title'
import { edited, type Edits } from '../fields/parts'
import { Retire } from '../archive/Retire'
import { useRetired } from '../archive/retired'
import { RetiredNote } from '../archive/RetiredNote'
import { Overtaken } from '../revisions/Overtaken'
import { RevisionsPanel } from '../revisions/RevisionsPanel'
import { definitionOf, saveDocument } from './api'
import { SaveFields } from './SaveFields'
import { rich, t } from '../../messages'

/** What every definition has. */
export type Named = { kind: string; name: string; title?: string; owner?: string }

export type FormProps<T> = { value: T; put: (edits: Edits<T>) => void }

type Props<T extends Named> = {
  /** A definition that is not saved yet. */
  start: T
  /** What a new one is called in the heading. */
  fresh: string
  /** Lists that mean something when they are empty. */
  saysEmpty?: (keyof T & string)[]
  /** Where a saved one is seen. */
  at: (name: string) => string
  /** The fields beside title and name. */
  fields: (form: FormProps<T>) => ReactNode
  /** What it does as it stands in the form, as a sheet beside the fields. */
  effect?: (value: T) => ReactNode
}

/** The page of one definition as a form: the fields, what they do, who changed them before. */
export function DefinitionForm<T extends Named>(props: Props<T>) {
  const { name } = useParams()
  const kind = props.start.kind
  const found = useQuery({ ...definitionOf<T>(kind, name ?? ''), enabled: name !== undefined })
  if (name === undefined) return <OneForm {...props} saved={props.start} revision={0} />
  return (
    <Loaded query={found} what={t('loading.the_definition')}>
      {({ value, revision }) => <OneForm key={`${name}/${revision}`} {...props} saved={value} revision={revision} />}
    </Loaded>
  )
}

function OneForm<T extends Named>({
  start,
  fresh,
  saysEmpty = [],
  at,
  fields,
  effect,
  saved,
  revision,
}: Props<T> & { saved: T; revision: number }) {
  const kind = start.kind
  const isNew = revision === 0
  const typed = useKept<T>(`${kind}/${isNew ? '' : saved.name}`, saved, revision)
  const value = typed.value
  const retired = useRetired(kind, saved.name)
  const [reason, setReason] = useState('')
  const client = useQueryClient()
  const go = useNavigate()
  useTitle(isNew ? fresh : (saved.title ?? saved.name))
  const put = (edits: Edits<T>) => typed.change((before) => edited(before, edits, saysEmpty))
  const retitle = (title: string) => {
    const follows = isNew && (value.name === '' || value.name === nameFrom(value.title ?? ''))
    put({ title, ...(follows ? { name: nameFrom(title) } : {}) } as unknown as Edits<T>)
  }
  const save = useMutation({
    mutationFn: () => saveDocument({ text: JSON.stringify(value), revision: typed.base, reason }),
    onSuccess: async ({ name }) => {
      typed.forget()
      setReason('')
      await client.invalidateQueries()
      await go(at(name))
    },
  })
  return (
    <>
      <div className="head">
        <div>
          <h1>{isNew ? value.title || fresh : (saved.title ?? saved.name)}</h1>
          {!isNew && (
            <span className="quiet">
              {rich('documents.name_and_revision', {
                code: (inner) => <code>{inner}</code>,
                name: saved.name,
                revision,
              })}{' '}
              <Link to={`/documents/${kind}/${saved.name}`}>{t('documents.edit_as_yaml')}</Link>
            </span>
          )}
        </div>
      </div>
      <RetiredNote retired={retired} />
      <TypedHere typed={typed} onDiscard={() => typed.reset(saved, revision)} />
      {!isNew && <Overtaken kind={kind} name={saved.name} base={typed.base} onSeen={typed.setBase} />}
      <div className={effect ? 'two' : ''}>
        <section className="sheet">
          <Form
            onSubmit={(event) => {
              event.preventDefault()
              save.mutate()
            }}
          >
            <div className="fields">
              <Form.Group controlId="title" className="whole">
                <Form.Label className="mb-0 small quiet">{t('shared.title')}</Form.Label>
                <Form.Control value={value.title ?? ''} onChange={(event) => retitle(event.target.value)} />
              </Form.Group>
              {isNew && (
                <Form.Group controlId="name">
                  <Form.Label className="mb-0 small quiet">{t('shared.name_for_urls_and_commands')}</Form.Label>
                  <Form.Control
                    size="sm"
                    value={value.name}
                    onChange={(event) => typed.change((before) => ({ ...before, name: event.target.value }))}
                  />
                </Form.Group>
              )}
            </div>
            {fields({ value, put })}
            {!retired && (
              <SaveFields
                owner={isNew ? undefined : saved.owner}
                reason={reason}
                onReason={setReason}
                disabled={save.isPending || value.name === ''}
              />
            )}
          </Form>
          <div role="status">
            <Refusal error={save.error} />
          </div>
        </section>
        {effect?.(value)}
      </div>
      {!isNew && (
        <RevisionsPanel
          kind={kind}
          name={saved.name}
          onRestored={() => {
            typed.forget()
            void client.invalidateQueries()
          }}
        />
      )}
      {!isNew && <Retire kind={kind} name={saved.name} owner={saved.owner} />}
    </>
  )
}
