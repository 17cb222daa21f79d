import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link, useNavigate, useParams } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { ApiError } from '../../api/client'
import { Loaded } from '../../shared/Loading'
import { useTitle } from '../../shared/title'
import { previewDraft, ruleDocument, save, type RuleDocument } from './api'
import { BackTestPanel } from './BackTestPanel'
import { Bands } from './Bands'
import { ConditionField } from './ConditionField'
import { Measures } from './Measures'
import { PreviewPanel } from './PreviewPanel'

/** The conditions of one rule, with what they would do beside them. Nothing is changed until it is saved. */
export function RuleEditor() {
  const { name = '' } = useParams()
  const document = useQuery(ruleDocument(name))
  return <Loaded query={document} what="The rule">{(data) => <Editor saved={data} />}</Loaded>
}

const withoutEmpty = (document: RuleDocument): RuleDocument => {
  const kept = { ...document }
  if (!kept.exceptions?.trim()) delete kept.exceptions
  if (!kept['fire when']?.trim()) delete kept['fire when']
  return kept
}

function Editor({ saved }: { saved: RuleDocument }) {
  useTitle(`Edit ${saved.title}`)
  const [draft, setDraft] = useState(saved)
  const [remark, setRemark] = useState('')
  const client = useQueryClient()
  const navigate = useNavigate()
  const document = withoutEmpty(draft)
  const preview = useMutation({ mutationFn: () => previewDraft(document) })
  const keep = useMutation({
    mutationFn: () => save(document, remark),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['rules'] })
      client.removeQueries({ queryKey: ['document', saved.name] })
      await navigate(`/rules/${saved.name}`)
    },
  })
  const change = (part: Partial<RuleDocument>) => setDraft({ ...draft, ...part })
  const measures = Object.fromEntries(Object.entries(draft.measures ?? {}).map(([name, value]) => [name, typeof value === 'string' ? value : value.value]))
  const place = { per: draft.per, measures: draft.per ? measures : undefined }
  return (
    <>
      <div className="head">
        <div>
          <h1>{saved.title}</h1>
          <span className="quiet">Conditions on <code>{saved.query}</code> · <Link to={`/rules/${saved.name}`}>back without saving</Link></span>
        </div>
        <Button variant="plain" onClick={() => preview.mutate()} disabled={preview.isPending}>{preview.isPending ? 'Running …' : 'Preview'}</Button>
      </div>
      <div className="two">
        <section className="sheet">
          <h2>Conditions</h2>
          {draft.per && <p className="told mt-2">{draft.per.length === 0 ? 'The whole result is judged as one group.' : `Groups by ${draft.per.join(', ')} are judged.`}</p>}
          {draft.per && <Measures query={saved.query} document={draft} measures={measures} onChange={change} />}
          <div className="mt-3">
            <ConditionField label={draft.per ? 'An exception is a group where' : 'An exception is a row where'} query={saved.query} place={place} value={draft.exceptions ?? ''} onChange={(exceptions) => change({ exceptions })} hint="Ctrl and space offer what may come next. Left empty, every one is." />
            <Bands query={saved.query} place={place} bands={draft.severity ?? []} onChange={(severity) => change({ severity })} />
            <ConditionField label="Fires when" query={saved.query} place={{ place: 'check' }} value={draft['fire when'] ?? ''} onChange={(text) => change({ 'fire when': text })} hint="Left empty, whenever there is something to tell." />
          </div>
          <Form className="d-flex gap-2 align-items-end flex-wrap" onSubmit={(event) => { event.preventDefault(); keep.mutate() }}>
            <Form.Group controlId="save-remark" className="flex-grow-1">
              <Form.Label className="mb-0">Why this change</Form.Label>
              <Form.Control size="sm" value={remark} onChange={(event) => setRemark(event.target.value)} />
            </Form.Group>
            <Button type="submit" disabled={keep.isPending}>Save</Button>
          </Form>
          <Refusal error={keep.error} />
        </section>
        <div>
          <section className="sheet">
            <h2>Preview</h2>
            <div role="status">
              {!preview.data && !preview.error && <p className="quiet mt-2 mb-0">Runs the query for real. Reports and remembers nothing.</p>}
              {preview.data && <PreviewPanel seen={preview.data} onAccept={(exceptions) => change({ exceptions })} />}
              <Refusal error={preview.error} />
            </div>
          </section>
          <BackTestPanel document={document} />
        </div>
      </div>
    </>
  )
}

function Refusal({ error }: { error: Error | null }) {
  if (!error) return null
  const problems = error instanceof ApiError ? error.problems : []
  return (
    <ul className="told bad list-unstyled mt-2">
      {problems.length === 0 && <li>{error.message}</li>}
      {problems.map((problem, index) => (
        <li key={index}>{problem.field && <code>{problem.field}</code>} {problem.message}{problem.suggestion && <> – did you mean “{problem.suggestion}”?</>}</li>
      ))}
    </ul>
  )
}
