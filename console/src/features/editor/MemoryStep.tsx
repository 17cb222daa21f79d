import { Form } from 'react-bootstrap'
import { plural } from '../../shared/words'
import type { MemoryPart, Seen } from './api'
import type { Column } from './Builder'

const kinds = [['new', 'is new'], ['returned', 'has come back'], ['worsened', 'has become worse'], ['eased', 'has become milder'], ['changed', 'has other values in the watched columns'], ['cleared', 'has cleared'], ['moved away', 'belongs to another audience now']] as const

type Props = { memory: MemoryPart; columns: Column[]; per: string[] | undefined; onChange: (memory: MemoryPart) => void }

const tidy = (memory: MemoryPart): MemoryPart => Object.fromEntries(Object.entries(memory).filter(([, value]) => value !== '' && !(Array.isArray(value) && value.length === 0)))

/** What counts as the same finding, and what of it is said again. */
export function MemoryStep({ memory, columns, per, onChange }: Props) {
  const put = (part: Partial<MemoryPart>) => onChange(tidy({ ...memory, ...part }))
  const toggle = (list: string[] | undefined, value: string, is: boolean) => (is ? [...(list ?? []), value] : (list ?? []).filter((each) => each !== value))
  const incremental = memory.mode !== 'full'
  return (
    <>
      <fieldset className="mt-2">
        <legend>It reports</legend>
        <Form.Check id="mode-incremental" type="radio" name="mode" label="only what is new, and remembers what it has reported" checked={incremental} onChange={() => put({ mode: 'incremental' })} />
        <Form.Check id="mode-full" type="radio" name="mode" label="everything that is so, each time there is something" checked={!incremental} onChange={() => put({ mode: 'full' })} />
      </fieldset>
      {per
        ? <p className="told mt-3 mb-0">{per.length === 0 ? 'The whole result is one finding.' : `A finding is told from another by ${per.join(', ')}, as the groups are.`}</p>
        : (
          <fieldset className="mt-3">
            <legend>Two exceptions are the same finding if they agree in</legend>
            <div className="d-flex flex-wrap gap-3">{columns.map((column) => <Form.Check key={column.name} id={`key-${column.name}`} type="checkbox" label={column.label} checked={memory.key?.includes(column.name) ?? false} onChange={(event) => put({ key: toggle(memory.key, column.name, event.target.checked) })} />)}</div>
            {incremental && (memory.key ?? []).length === 0 && <p className="small problem-text mt-1 mb-0">Choose what tells one from another, such as a number; without it the same row would be new at each check.</p>}
          </fieldset>
        )}
      {incremental && (
        <fieldset className="mt-3">
          <legend>It says so when a finding</legend>
          {kinds.map(([code, words]) => <Form.Check key={code} id={`report-${code}`} type="checkbox" label={words} checked={memory.report?.includes(code) ?? false} onChange={(event) => put({ report: kinds.map(([each]) => each).filter((each) => (each === code ? event.target.checked : memory.report?.includes(each))) })} />)}
          {memory.report?.includes('changed') && <Form.Group controlId="watch" className="mt-2"><Form.Label className="mb-0 small quiet">Watched columns, with commas</Form.Label><Form.Control size="sm" key={memory.watch?.join()} defaultValue={memory.watch?.join(', ') ?? ''} onBlur={(event) => put({ watch: event.target.value.split(',').map((each) => each.trim()).filter(Boolean) })} /></Form.Group>}
        </fieldset>
      )}
      <div className="fields">
        <Form.Group controlId="first-check"><Form.Label className="mb-0 small quiet">The first check</Form.Label>
          <Form.Select size="sm" value={memory['first check'] ?? 'report'} onChange={(event) => put({ 'first check': event.target.value })}><option value="report">reports what is there</option><option value="take as known">takes what is there as known</option></Form.Select>
        </Form.Group>
        <Form.Group controlId="absence"><Form.Label className="mb-0 small quiet">A finding that is no longer among the rows</Form.Label>
          <Form.Select size="sm" value={memory.absence ?? ''} onChange={(event) => put({ absence: event.target.value })}><option value="">as suits the query</option><option value="put right">has been put right, and clears</option><option value="passed by">was passed by, and is out of sight</option><option value="stays">is still so, and stays open</option></Form.Select>
        </Form.Group>
        <Form.Group controlId="hold"><Form.Label className="mb-0 small quiet">It must hold for</Form.Label><Form.Control size="sm" value={memory.hold ?? ''} placeholder="at once; or 3 checks, 2 hours" onChange={(event) => put({ hold: event.target.value })} /></Form.Group>
        <Form.Group controlId="misses"><Form.Label className="mb-0 small quiet">It clears after being missed for</Form.Label><Form.Control size="sm" value={memory.misses ?? ''} placeholder="at once; or 3 checks, 2 hours" onChange={(event) => put({ misses: event.target.value })} /></Form.Group>
        <Form.Group controlId="remind"><Form.Label className="mb-0 small quiet">It is said again every</Form.Label><Form.Control size="sm" value={memory['remind every'] ?? ''} placeholder="never; or 3 days" onChange={(event) => put({ 'remind every': event.target.value })} /></Form.Group>
      </div>
    </>
  )
}

/** What the memory makes of the exceptions of now. */
export function MemoryEffect({ memory, seen, columns }: { memory: MemoryPart; seen: Seen | undefined; columns: Column[] }) {
  const labels = (memory.key ?? []).map((name) => columns.find((column) => column.name === name)?.label ?? name)
  return (
    <>
      {memory.mode === 'full'
        ? <p className="sentence-of">Each check reports every exception, also those that were reported before.</p>
        : labels.length > 0 && <p className="sentence-of">A row with the same {labels.join(', ')} as one that was reported is not reported again.</p>}
      {seen
        ? <p className="mb-1"><strong>{plural(seen.exceptions, 'exception')}</strong> now; a check now would report <strong>{seen.wouldReport}</strong>{seen.exceptions > seen.wouldReport && memory.mode !== 'full' && '; the others were reported before, have not lasted long enough, or are snoozed or accepted'}.</p>
        : <p className="quiet mb-1">The preview under Conditions says how many a check now would report.</p>}
      <p className="small quiet mb-0">Previews never touch the memory.</p>
    </>
  )
}
