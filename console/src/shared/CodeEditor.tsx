import { useEffect, useRef } from 'react'
import { autocompletion, closeBrackets, completionKeymap, type CompletionSource } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { PostgreSQL, sql, type SQLNamespace } from '@codemirror/lang-sql'
import { yaml } from '@codemirror/lang-yaml'
import { bracketMatching, HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { setDiagnostics, type Diagnostic } from '@codemirror/lint'
import { Compartment, EditorState, type Extension } from '@codemirror/state'
import { EditorView, keymap, lineNumbers } from '@codemirror/view'
import { tags } from '@lezer/highlight'

/** What is wrong with the text, at a place in it that counts from 0. */
export type Mark = { from: number; to: number; message: string; warning?: boolean }

export type CodeProps = {
  label: string
  language: 'sql' | 'yaml'
  value: string
  onChange: (value: string) => void
  /** Tables with their columns, by name: offered while SQL is typed. */
  tables?: SQLNamespace
  marks?: Mark[]
  /** Offers what may come at the caret of a text in YAML. */
  completion?: CompletionSource
  /** Puts the caret at a place that counts from 0, each time another object is given. */
  caret?: { offset: number } | undefined
  /** Describes the field, for those who hear it. */
  describedBy?: string
}

const colours = HighlightStyle.define([
  { tag: tags.keyword, color: 'var(--code-keyword)' },
  { tag: [tags.string, tags.special(tags.string)], color: 'var(--code-text)' },
  { tag: [tags.number, tags.bool, tags.null], color: 'var(--code-number)' },
  { tag: [tags.comment], color: 'var(--bs-secondary-color)', fontStyle: 'italic' },
  { tag: [tags.propertyName, tags.definition(tags.propertyName)], color: 'var(--code-name)' },
])

const languageOf = (
  language: CodeProps['language'],
  tables: SQLNamespace | undefined,
  completion: CompletionSource | undefined,
): Extension =>
  language === 'yaml'
    ? [yaml(), EditorState.languageData.of(() => (completion ? [{ autocomplete: completion }] : []))]
    : sql({ dialect: PostgreSQL, upperCaseKeywords: false, ...(tables ? { schema: tables } : {}) })

/** Tab leaves the field, as in any other, so that it can be left without a mouse. */
export function CodeEditor({
  label,
  language,
  value,
  onChange,
  tables,
  marks,
  completion,
  caret,
  describedBy,
}: CodeProps) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView>(null)
  const changed = useRef(onChange)
  const speaking = useRef(new Compartment())
  useEffect(() => {
    changed.current = onChange
  })
  useEffect(() => {
    if (!host.current) return
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: value,
        extensions: [
          lineNumbers(),
          history(),
          bracketMatching(),
          closeBrackets(),
          // Enter ends a line; it takes an entry only after the arrow keys have chosen one.
          autocompletion({ selectOnOpen: false, icons: false }),
          EditorView.lineWrapping,
          syntaxHighlighting(colours),
          speaking.current.of(languageOf(language, tables, completion)),
          keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
          EditorView.contentAttributes.of({
            'aria-label': label,
            spellcheck: 'false',
            autocapitalize: 'off',
            tabindex: '0',
            ...(describedBy ? { 'aria-describedby': describedBy } : {}),
          }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) changed.current(update.state.doc.toString())
          }),
        ],
      }),
    })
    view.current = editor
    return () => editor.destroy()
    // The view keeps its own text; changes from outside are passed to it below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [label, language])
  useEffect(() => {
    const editor = view.current
    if (editor && editor.state.doc.toString() !== value)
      editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: value } })
  }, [value])
  useEffect(() => {
    view.current?.dispatch({ effects: speaking.current.reconfigure(languageOf(language, tables, completion)) })
  }, [language, tables, completion])
  useEffect(() => {
    const editor = view.current
    if (!editor) return
    const length = editor.state.doc.length
    const found: Diagnostic[] = (marks ?? []).map(({ from, to, message, warning }) => ({
      from: Math.min(from, length),
      to: Math.min(Math.max(to, from + 1), length),
      message,
      severity: warning ? 'warning' : 'error',
    }))
    editor.dispatch(setDiagnostics(editor.state, found))
  }, [marks, value])
  useEffect(() => {
    const editor = view.current
    if (!editor || !caret) return
    const anchor = Math.min(caret.offset, editor.state.doc.length)
    editor.dispatch({ selection: { anchor }, effects: EditorView.scrollIntoView(anchor, { y: 'center' }) })
    editor.focus()
  }, [caret])
  return <div className="code-field" ref={host} />
}
