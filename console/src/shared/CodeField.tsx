import { lazy, Suspense, useEffect, useState } from 'react'
import { Form } from 'react-bootstrap'
import type { CodeProps } from './CodeEditor'

const CodeEditor = lazy(() => import('./CodeEditor').then(({ CodeEditor: editor }) => ({ default: editor })))

/** A field for SQL or YAML with line numbers and colours; a plain one in the first view, which does not wait for the editor. */
export function CodeField(props: CodeProps) {
  const [shown, setShown] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setShown(true), 0)
    return () => clearTimeout(timer)
  }, [])
  const plain = (
    <Form.Control
      as="textarea"
      rows={12}
      className="document"
      spellCheck={false}
      aria-label={props.label}
      value={props.value}
      onChange={(event) => props.onChange(event.target.value)}
    />
  )
  return shown ? (
    <Suspense fallback={plain}>
      <CodeEditor {...props} />
    </Suspense>
  ) : (
    plain
  )
}
