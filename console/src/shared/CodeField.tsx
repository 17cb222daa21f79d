import { lazy, Suspense } from 'react'
import { Form } from 'react-bootstrap'
import type { CodeProps } from './CodeEditor'

const CodeEditor = lazy(() => import('./CodeEditor').then(({ CodeEditor: editor }) => ({ default: editor })))

/** A field for SQL or YAML with line numbers and colours; a plain one until the editor has come. */
export function CodeField(props: CodeProps) {
  const plain = <Form.Control as="textarea" rows={12} className="document" spellCheck={false} aria-label={props.label} value={props.value} onChange={(event) => props.onChange(event.target.value)} />
  return <Suspense fallback={plain}><CodeEditor {...props} /></Suspense>
}
