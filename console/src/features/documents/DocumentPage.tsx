import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useKept } from '../../shared/kept'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { TypedHere } from '../../shared/TypedHere'
import { useTitle } from '../../shared/title'
import { Overtaken } from '../revisions/Overtaken'
import { RevisionsPanel } from '../revisions/RevisionsPanel'
import { documentOf, saveDocument, type Kept } from './api'
import { MailPanel } from './MailPanel'
import { SaveFields } from './SaveFields'
import { YamlField } from './yaml/YamlField'
import { rich, t } from '../../messages'

/** A definition as its document, to be edited as text; a rule with its mail beside it. */
export function DocumentPage() {
  const { kind = '', name = '' } = useParams()
  const kept = useQuery(documentOf(kind, name))
  return (
    <Loaded query={kept} what={t('loading.the_definition_file')}>
      {(data) => <Editor key={`${kind}/${name}`} kind={kind} name={name} kept={data} />}
    </Loaded>
  )
}

const start = 'kind: layout\nname: \ncolumns: []\n'

/** A document that is not there yet, of any kind. */
export function NewDocumentPage() {
  return <Editor kind="" name="" kept={{ text: start, revision: 0 }} />
}

const pages: Record<string, string> = {
  rule: 'rules',
  query: 'queries',
  threshold: 'thresholds',
  calendar: 'calendars',
  layout: 'layouts',
  'round-up': 'round-ups',
}

const at = (kind: string, name: string) => `/${pages[kind] ?? 'setup'}/${name}`

function Editor({ kind, name, kept }: { kind: string; name: string; kept: Kept }) {
  useTitle(name ? t('documents.yaml_of', { name }) : t('shared.new_definition'))
  const typed = useKept(`document/${kind}/${name}`, kept.text, kept.revision)
  const text = typed.value
  const revision = typed.base
  const [reason, setReason] = useState('')
  const client = useQueryClient()
  const go = useNavigate()
  const save = useMutation({
    mutationFn: () => saveDocument({ text, revision, reason }),
    onSuccess: async (saved) => {
      typed.reset(text, saved.revision)
      setReason('')
      // Not the document itself: what is typed since must stay, whatever comes back.
      await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'documents' })
      if (saved.name !== name)
        await go(`/documents/${saved.kind.toLowerCase().replace('_', '-')}/${saved.name}`, { replace: true })
    },
  })
  const isRule = /^kind:\s*rule\s*$/m.test(text)
  return (
    <>
      <div className="head">
        <div>
          <h1>{name ? t('documents.yaml_of', { name }) : t('shared.new_definition')}</h1>
          <span className="quiet">
            {name ? (
              <>
                {rich('documents.revision_back', {
                  kind,
                  revision,
                  link: (inner) => <Link to={at(kind, name)}>{inner}</Link>,
                })}
              </>
            ) : (
              t('documents.a_query_rule_threshold_calendar')
            )}
          </span>
        </div>
      </div>
      <TypedHere typed={typed} onDiscard={() => typed.reset(kept.text, kept.revision)} />
      {name && <Overtaken kind={kind} name={name} base={revision} onSeen={typed.setBase} />}
      <div className={isRule ? 'two' : ''}>
        <section className="sheet">
          <Form
            onSubmit={(event) => {
              event.preventDefault()
              save.mutate()
            }}
          >
            <YamlField value={text} onChange={typed.change} />
            <SaveFields
              owner={undefined}
              reason={reason}
              onReason={setReason}
              disabled={save.isPending || text === ''}
            />
          </Form>
          <div role="status">
            <Refusal error={save.error} />
            {save.isSuccess && (
              <div className="callout mt-2">
                {save.data.changed
                  ? t('shared.saved_as_revision', { revision: save.data.revision })
                  : t('shared.no_changes_to_save')}
                {save.data.warnings.map((warning, index) => (
                  <div key={index}>
                    {t('shared.warning', { message: warning.message })}
                    {warning.suggestion && <> {t('shared.did_you_mean', { suggestion: warning.suggestion })}</>}
                  </div>
                ))}
              </div>
            )}
          </div>
        </section>
        {isRule && <MailPanel document={text} />}
      </div>
      {name && (
        <RevisionsPanel
          kind={kind}
          name={name}
          onRestored={() => {
            typed.forget()
            void go(0)
          }}
        />
      )}
    </>
  )
}
