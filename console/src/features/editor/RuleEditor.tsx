import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link, useNavigate, useParams } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { useTitle } from '../../shared/title'
import { timeWords } from '../../shared/words'
import { discardDraft, editing, keepDraft, previewDraft, switchTo, type Editing, type RuleDocument } from './api'
import { BackTestPanel } from './BackTestPanel'
import { Bands } from './Bands'
import { ConditionField } from './ConditionField'
import { Measures } from './Measures'
import { PreviewPanel } from './PreviewPanel'

/** The conditions of one rule, with what they would do beside them. Of an active rule a draft is edited, until someone switches to it. */
export function RuleEditor() {
  const { name = '' } = useParams()
  const found = useQuery(editing(name))
  return <Loaded query={found} what="The rule">{(data) => <Editor key={data.draft?.version ?? 'rule'} found={data} />}</Loaded>
}

const withoutEmpty = (document: RuleDocument): RuleDocument => {
  const kept = { ...document }
  if (!kept.exceptions?.trim()) delete kept.exceptions
  if (!kept['fire when']?.trim()) delete kept['fire when']
  return kept
}

function Editor({ found }: { found: Editing }) {
  const saved = found.document
  useTitle(`Edit ${saved.title}`)
  const [draft, setDraft] = useState(saved)
  const [remark, setRemark] = useState('')
  const client = useQueryClient()
  const navigate = useNavigate()
  const document = withoutEmpty(draft)
  const preview = useMutation({ mutationFn: () => previewDraft(document) })
  const leave = async () => {
    await client.invalidateQueries({ queryKey: ['rules'] })
    client.removeQueries({ queryKey: ['document', saved.name] })
    await navigate(`/rules/${saved.name}`)
  }
  const keep = useMutation({ mutationFn: () => switchTo(document, found, remark), onSuccess: leave })
  const put = useMutation({ mutationFn: () => keepDraft(document, found), onSuccess: leave })
  const discard = useMutation({ mutationFn: () => discardDraft(saved.name), onSuccess: leave })
  const busy = keep.isPending || put.isPending || discard.isPending
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
      {found.draft && (
        <p className="told mt-2">
          This is the draft that {found.draft.author} kept on {timeWords(found.draft.at)}; the rule goes on as it is until someone switches.{found.draft.outdated && ' The rule was saved since: keep the draft again, after a look at what differs, before you switch.'}{' '}
          <Button size="sm" variant="plain" disabled={busy} onClick={() => discard.mutate()}>Throw it away</Button>
        </p>
      )}
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
            {found.state === 'ACTIVE' && <Button variant="plain" disabled={busy} onClick={() => put.mutate()}>Keep as draft</Button>}
            <Button type="submit" disabled={busy || found.draft?.outdated}>{found.state === 'ACTIVE' ? 'Switch to this' : 'Save'}</Button>
          </Form>
          <Refusal error={keep.error ?? put.error ?? discard.error} />
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
