import { EditorView } from '@codemirror/view'
import { act, screen, waitFor } from '@testing-library/react'

/** The editor of code with a label, once it has taken the place of the plain field. */
export async function codeEditor(label: string): Promise<EditorView> {
  return waitFor(() => {
    const view = EditorView.findFromDOM(screen.getByLabelText(label))
    if (!view) throw new Error(`no editor of code is at ${label} yet`)
    return view
  })
}

/** Adds a text at the end, as if it had been typed. */
export async function typeCode(label: string, typed: string) {
  const view = await codeEditor(label)
  act(() => view.dispatch({ changes: { from: view.state.doc.length, insert: typed }, userEvent: 'input.type' }))
}

export const codeOf = async (label: string) => (await codeEditor(label)).state.doc.toString()
