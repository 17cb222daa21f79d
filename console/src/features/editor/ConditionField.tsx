import { useId, useRef, useState } from 'react'
import { Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { ApiProblem } from '../../api/client'
import { useSettled } from '../../shared/settled'
import { complete, conditionSeen, type Option, type Options, type Place } from './api'
import { t } from '../../messages'

type Props = {
  label: string
  query: string
  place: Place
  value: string
  onChange: (text: string) => void
  hint?: string
}

const nothing: Options = { from: 0, to: 0, options: [] }
const mostOffered = 12

/** A condition being written: what may come next while typing, its sentence, and each problem under its place. */
export function ConditionField({ label, query, place, value, onChange, hint }: Props) {
  const id = useId()
  const field = useRef<HTMLTextAreaElement>(null)
  const asked = useRef(0)
  const [offered, setOffered] = useState(nothing)
  const [chosen, setChosen] = useState(0)
  const settled = useSettled(value, 300)
  const seen = useQuery({ ...conditionSeen(query, settled, place), enabled: settled.trim() !== '' })
  const options = offered.options.slice(0, mostOffered)

  /** An answer that a later keystroke has overtaken is dropped; a word that is whole asks for nothing. */
  const ask = async (text: string, offset: number) => {
    const turn = ++asked.current
    const answer = await complete(query, text, offset, place).catch(() => nothing)
    if (turn !== asked.current) return
    const typed = text.slice(answer.from, answer.to)
    setOffered(answer.options.some((option) => option.text === typed) ? nothing : answer)
    setChosen(0)
  }
  const leave = () => {
    asked.current++
    setOffered(nothing)
  }
  const accept = (option: Option) => {
    const text = value.slice(0, offered.from) + option.text + value.slice(offered.to)
    const cursor = offered.from + option.text.length
    onChange(text)
    leave()
    requestAnimationFrame(() => {
      field.current?.focus()
      field.current?.setSelectionRange(cursor, cursor)
    })
  }
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key === ' ' && event.ctrlKey) {
      event.preventDefault()
      void ask(value, field.current?.selectionStart ?? value.length)
      return
    }
    const option = options[chosen]
    if (!option) return
    if (event.key === 'Escape') leave()
    else if (event.key === 'ArrowDown') setChosen((chosen + 1) % options.length)
    else if (event.key === 'ArrowUp') setChosen((chosen + options.length - 1) % options.length)
    else if (event.key === 'Enter' || event.key === 'Tab') accept(option)
    else return
    event.preventDefault()
  }

  const problems = settled.trim() === '' ? [] : (seen.data?.problems ?? [])
  const refused = problems.some((problem) => problem.weight === 'ERROR')
  return (
    <Form.Group controlId={`${id}-text`} className="condition mb-3">
      <Form.Label className="mb-0">{label}</Form.Label>
      {hint && <div className="small quiet">{hint}</div>}
      <Form.Control
        as="textarea"
        rows={Math.max(2, value.split('\n').length)}
        spellCheck={false}
        autoComplete="off"
        className="font-monospace"
        ref={field}
        value={value}
        isInvalid={refused}
        aria-autocomplete="list"
        aria-controls={`${id}-options`}
        aria-activedescendant={options.length > 0 ? `${id}-option-${chosen}` : undefined}
        aria-describedby={`${id}-said`}
        onChange={(event) => {
          onChange(event.target.value)
          const cursor = event.target.selectionStart ?? event.target.value.length
          if (/[\p{L}\d_']$/u.test(event.target.value.slice(0, cursor))) void ask(event.target.value, cursor)
          else leave()
        }}
        onKeyDown={onKeyDown}
        onBlur={leave}
      />
      <ul
        className="options"
        id={`${id}-options`}
        role="listbox"
        aria-label={t('editor.suggestions_for', { label })}
        hidden={options.length === 0}
      >
        {options.map((option, index) => (
          <li
            key={option.text}
            id={`${id}-option-${index}`}
            role="option"
            aria-selected={index === chosen}
            onMouseDown={(event) => {
              event.preventDefault()
              accept(option)
            }}
          >
            <code>{option.text}</code>{' '}
            <span className="small quiet">
              {option.kind}
              {option.detail && `, ${option.detail}`}
            </span>
          </li>
        ))}
      </ul>
      <div id={`${id}-said`} aria-live="polite">
        {options.length > 0 && (
          <span className="visually-hidden">
            {t('editor.entry_suggestions_select_with_the', { options: options.length })}
          </span>
        )}
        {problems.map((problem, index) => (
          <ProblemUnderPlace key={index} text={settled} problem={problem} />
        ))}
        {settled.trim() !== '' && !refused && seen.data && (
          <div className="sentence">{seen.data.sentence.charAt(0).toUpperCase() + seen.data.sentence.slice(1)}.</div>
        )}
      </div>
    </Form.Group>
  )
}

function ProblemUnderPlace({ text, problem }: { text: string; problem: ApiProblem }) {
  const place = problem.place
  const line = place ? (text.split('\n')[place.line - 1] ?? '') : ''
  return (
    <div className={problem.weight === 'WARNING' ? 'problem warning' : 'problem'}>
      {place && (
        <pre aria-hidden="true">
          {line}
          {'\n'}
          {' '.repeat(place.column - 1)}
          {'^'.repeat(Math.max(1, Math.min(place.length, line.length - place.column + 1)))}
        </pre>
      )}
      <div>
        {problem.weight === 'WARNING' ? t('editor.warning') : ''}
        {problem.message}
        {problem.suggestion && <> {t('shared.did_you_mean', { suggestion: problem.suggestion })}</>}
        {place && <span className="quiet"> {t('editor.line_column', { line: place.line, column: place.column })}</span>}
      </div>
    </div>
  )
}
