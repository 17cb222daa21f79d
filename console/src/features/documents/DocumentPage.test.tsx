import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { codeEditor, codeOf, typeCode } from '../../shared/code.test-kit'
import { renderAt } from '../../shared/render.test-kit'
import { DocumentPage, NewDocumentPage } from './DocumentPage'

const routes = (
  <Routes>
    <Route path="/documents/new" element={<NewDocumentPage />} />
    <Route path="/documents/:kind/:name" element={<DocumentPage />} />
  </Routes>
)
const text = 'kind: rule\nname: late\ndelivery: { to: [per.aune@skerryline.example] }\n'
const late = {
  'GET /api/definitions/rule/late': () => new Response(text, { headers: { 'Content-Type': 'application/yaml' } }),
  'GET /api/definitions/rule/late/revisions': {
    next: null,
    revisions: [7, 6].map((revision) => ({
      revision,
      reason: '',
      author: 'Ines Holm',
      at: '2026-11-24T04:40:00Z',
    })),
  },
}
const mail = {
  subject: '2 critical: Late',
  to: ['per.aune@skerryline.example'],
  text: 'SK-1 late',
  html: '<p>SK-1</p>',
  files: ['late.csv'],
}

test('a document is saved against the revision it was made from, with its reason', async () => {
  const sent: unknown[] = []
  const calls = renderAt('/documents/rule/late', routes, {
    ...late,
    'PUT /api/definitions?reason=a+second+reader&revision=7': (body: unknown) => {
      sent.push(body)
      return {
        kind: 'RULE',
        name: 'late',
        revision: 8,
        changed: true,
        warnings: [{ message: 'nobody here has an address there', suggestion: 'x@y.example' }],
      }
    },
  })
  await typeCode('Definition (YAML)', '# more')
  await userEvent.type(screen.getByLabelText('Reason'), 'a second reader')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  expect(await screen.findByText(/Saved as revision 8/)).toBeInTheDocument()
  expect(screen.getByText(/nobody here has an address there – did you mean “x@y.example”/)).toBeInTheDocument()
  expect(sent).toEqual([text + '# more'])
  expect(calls).toContain('PUT /api/definitions?reason=a+second+reader&revision=7')
})

test('what is wrong is told with its field, and what was typed stays', async () => {
  renderAt('/documents/new', routes, {
    'PUT /api/definitions?reason=': () =>
      Response.json(
        { detail: 'x', problems: [{ message: 'a layout needs a name', field: 'name', suggestion: null }] },
        { status: 422 },
      ),
  })
  await typeCode('Definition (YAML)', 'x')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  expect(await screen.findByText('a layout needs a name')).toBeInTheDocument()
  expect(await codeOf('Definition (YAML)')).toMatch(/x$/)
})

test('each problem names its line, is marked there, and leads to it', async () => {
  const problem = {
    field: 'delivery.atach',
    message: 'unknown field "atach" in delivery',
    suggestion: 'attach',
    weight: 'ERROR',
    place: { offset: 22, line: 3, column: 1, length: 8 },
  }
  const sent: unknown[] = []
  renderAt('/documents/rule/late', routes, {
    ...late,
    'POST /api/review': (body: unknown) => {
      sent.push(body)
      return { problems: [problem, { ...problem, message: 'no place', place: null, weight: 'WARNING' }] }
    },
  })
  await typeCode('Definition (YAML)', '#')
  await userEvent.click(await screen.findByRole('button', { name: 'Line 3' }))
  const editor = await codeEditor('Definition (YAML)')
  expect(editor.state.selection.main.head).toBe(22)
  expect(editor.contentDOM).toHaveFocus()
  await waitFor(() => expect(editor.dom.querySelector('.cm-lintRange-error')).toHaveTextContent('delivery'))
  expect(screen.getByText('Warning: no place', { exact: false })).toBeInTheDocument()
  await waitFor(() => expect(sent).toEqual([text, text + '#']))
})

test('a person sends themselves the mail of a rule that is not saved', async () => {
  const calls = renderAt('/documents/rule/late', routes, { ...late, 'POST /api/mail-preview/to-me': { messages: 2 } })
  await userEvent.click(await screen.findByRole('button', { name: 'Email it to me' }))
  expect(await screen.findByText(/sent to you/)).toBeInTheDocument()
  expect(calls).toContain('POST /api/mail-preview/to-me')
})

test('the mail of a rule is shown as it would arrive, with the fields for its texts', async () => {
  const calls = renderAt('/documents/rule/late', routes, {
    ...late,
    'GET /api/definitions/rule/late': new Response(text, { headers: { 'Content-Type': 'application/yaml' } }),
    'POST /api/mail-preview': {
      messages: [mail, { ...mail, subject: '1 Warnung: Late', to: ['jens.brandt@skerryline.example'] }],
      sample: null,
      fields: [
        { name: 'updates', value: '2' },
        { name: 'open', value: '3' },
      ],
      fileFields: [],
      columns: ['sailing'],
    },
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Preview message' }))
  expect(await screen.findByTitle('The message on a desktop')).toHaveAttribute('srcdoc', '<p>SK-1</p>')
  await userEvent.click(screen.getByRole('button', { name: 'Phone' }))
  expect(screen.getByTitle('The message on a phone')).toHaveStyle({ maxWidth: '360px' })
  await userEvent.click(screen.getByRole('button', { name: 'Plain text' }))
  expect(screen.getByText('SK-1 late')).toBeInTheDocument()
  await userEvent.selectOptions(screen.getByLabelText('Message'), '1')
  expect(screen.getByText(/^to jens.brandt/)).toBeInTheDocument()
  expect(screen.getByText('{{open}}')).toBeInTheDocument()
  expect(screen.getByText('{{sailing}}')).toBeInTheDocument()
  expect(calls).toContain('POST /api/mail-preview')
})

test('where nothing is to be reported, the mail shows a sample and says so', async () => {
  renderAt('/documents/rule/late', routes, {
    ...late,
    'GET /api/definitions/rule/late': new Response(text, { headers: { 'Content-Type': 'application/yaml' } }),
    'POST /api/mail-preview': {
      messages: [mail],
      sample: 'ROWS',
      fields: [{ name: 'updates', value: '1' }],
      fileFields: [],
      columns: ['sailing'],
    },
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Preview message' }))
  expect(await screen.findByText(/^There are no exceptions now/)).toBeInTheDocument()
  expect(screen.getByTitle('The message on a desktop')).toBeInTheDocument()
})
