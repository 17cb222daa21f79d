import { Form } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import { plural } from '../../shared/words'
import type { MemoryPart, Seen } from './api'
import type { Column } from './builder'
import { edited, type Edits } from './parts'

const kinds = [
  ['new', 'new'],
  ['returned', 'returned'],
  ['worsened', 'worsened'],
  ['improved', 'improved'],
  ['changed', 'changed (watched columns)'],
  ['cleared', 'cleared'],
  ['moved', 'moved to another audience'],
] as const

type Props = {
  memory: MemoryPart
  columns: Column[]
  per: string[] | undefined
  onChange: (memory: MemoryPart) => void
}

/** What identifies a finding, and which updates are reported. */
export function MemoryStep({ memory, columns, per, onChange }: Props) {
  const put = (edits: Edits<MemoryPart>) => onChange(edited(memory, edits))
  const toggle = (list: string[] | undefined, value: string, is: boolean) =>
    is ? [...(list ?? []), value] : (list ?? []).filter((each) => each !== value)
  const incremental = memory.mode !== 'full'
  return (
    <>
      <fieldset className="mt-2">
        <legend>Reports</legend>
        <Form.Check
          id="mode-incremental"
          type="radio"
          name="mode"
          label="Incremental: only updates"
          checked={incremental}
          onChange={() => put({ mode: 'incremental' })}
        />
        <Form.Check
          id="mode-full"
          type="radio"
          name="mode"
          label="Full: all open findings, every time"
          checked={!incremental}
          onChange={() => put({ mode: 'full' })}
        />
      </fieldset>
      {per ? (
        <p className="callout mt-3 mb-0">
          {per.length === 0 ? 'The whole result is one finding.' : `One finding per group (${per.join(', ')}).`}
        </p>
      ) : (
        <fieldset className="mt-3">
          <legend>Key columns (rows with the same values are one finding)</legend>
          <div className="d-flex flex-wrap gap-3">
            {columns.map((column) => (
              <Form.Check
                key={column.name}
                id={`key-${column.name}`}
                type="checkbox"
                label={column.label}
                checked={memory.key?.includes(column.name) ?? false}
                onChange={(event) => put({ key: toggle(memory.key, column.name, event.target.checked) })}
              />
            ))}
          </div>
          {incremental && (memory.key ?? []).length === 0 && (
            <p className="small problem-text mt-1 mb-0">
              Select the columns that identify a row, such as an order number. Without them, every check reports all
              rows again.
            </p>
          )}
        </fieldset>
      )}
      {incremental && (
        <fieldset className="mt-3">
          <legend>Report a finding when it is</legend>
          {kinds.map(([code, words]) => (
            <Form.Check
              key={code}
              id={`report-${code}`}
              type="checkbox"
              label={words}
              checked={memory.report?.includes(code) ?? false}
              onChange={(event) =>
                put({
                  report: kinds
                    .map(([each]) => each)
                    .filter((each) => (each === code ? event.target.checked : memory.report?.includes(each))),
                })
              }
            />
          ))}
          {memory.report?.includes('changed') && (
            <Form.Group controlId="watch" className="mt-2">
              <Form.Label className="mb-0 small quiet">Watched columns (comma-separated)</Form.Label>
              <Form.Control
                size="sm"
                key={memory.watch?.join()}
                defaultValue={memory.watch?.join(', ') ?? ''}
                onBlur={(event) =>
                  put({
                    watch: event.target.value
                      .split(',')
                      .map((each) => each.trim())
                      .filter(Boolean),
                  })
                }
              />
            </Form.Group>
          )}
        </fieldset>
      )}
      <div className="fields">
        <Choice
          id="first-check"
          label="First check"
          value={memory.first_check ?? 'report'}
          options={[
            ['report', 'reports existing exceptions'],
            ['treat_as_known', 'treats existing exceptions as known'],
          ]}
          onChange={(first_check) => put({ first_check })}
        />
        <Choice
          id="absence"
          label="When a finding is no longer in the result"
          value={memory.absence}
          options={[
            ['', 'Automatic'],
            ['clears', 'it clears'],
            ['ages_out', 'it ages out (left the date window)'],
            ['stays_open', 'it stays open'],
          ]}
          onChange={(absence) => put({ absence })}
        />
        <Form.Group controlId="open-after">
          <Form.Label className="mb-0 small quiet">Open after</Form.Label>
          <Form.Control
            size="sm"
            value={memory.open_after ?? ''}
            placeholder="immediately; or 3 checks, 2 hours"
            onChange={(event) => put({ open_after: event.target.value })}
          />
        </Form.Group>
        <Form.Group controlId="clear-after">
          <Form.Label className="mb-0 small quiet">Clear after</Form.Label>
          <Form.Control
            size="sm"
            value={memory.clear_after ?? ''}
            placeholder="immediately; or 3 checks, 2 hours"
            onChange={(event) => put({ clear_after: event.target.value })}
          />
        </Form.Group>
        <Form.Group controlId="remind">
          <Form.Label className="mb-0 small quiet">Remind every</Form.Label>
          <Form.Control
            size="sm"
            value={memory.remind_every ?? ''}
            placeholder="never; or 3 days"
            onChange={(event) => put({ remind_every: event.target.value })}
          />
        </Form.Group>
      </div>
    </>
  )
}

/** What the memory makes of the exceptions of now. */
export function MemoryEffect({
  memory,
  seen,
  columns,
}: {
  memory: MemoryPart
  seen: Seen | undefined
  columns: Column[]
}) {
  const labels = (memory.key ?? []).map((name) => columns.find((column) => column.name === name)?.label ?? name)
  return (
    <>
      {memory.mode === 'full' ? (
        <p className="sentence-of">Each check reports all open findings, also those reported earlier.</p>
      ) : (
        labels.length > 0 && <p className="sentence-of">Rows with the same {labels.join(', ')} are reported once.</p>
      )}
      {seen ? (
        <p className="mb-1">
          <strong>{plural(seen.exceptions, 'exception')}</strong> now; a check now would report{' '}
          <strong>{seen.wouldReport}</strong>
          {seen.exceptions > seen.wouldReport &&
            memory.mode !== 'full' &&
            '; the others were reported earlier, have not lasted long enough, or are snoozed or accepted'}
          .
        </p>
      ) : (
        <p className="quiet mb-1">See the preview under Conditions for what a check would report now.</p>
      )}
      <p className="small quiet mb-0">Previews do not change the memory.</p>
    </>
  )
}
