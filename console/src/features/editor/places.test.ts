import type { RuleDocument } from './api'
import { labelOf, showField } from './places'

const rule = { name: 'late', query: 'sailings' } as RuleDocument

test.each([
  ['exceptions', 'Exception: each row where'],
  ['memory.key[0]', 'Key columns'],
  ['delivery.to[1]', 'To'],
  ['delivery.attach[0].file', 'Files'],
  ['delivery.split_to.Gråvik', 'A message for each value'],
  ['delivery.layout.sort[0]', 'Sort by'],
  ['delivery.max_per_hour', 'Max per hour'],
  ['limits.time_limit', 'Time limit'],
])('%s is called %s in the form', (field, label) => expect(labelOf(field, rule)).toBe(label))

test('the condition is called as the form calls it for groups, and for a plain report', () => {
  expect(labelOf('exceptions', { ...rule, per: ['route'] })).toBe('Exception: each group where')
  expect(labelOf('exceptions', { ...rule, memory: { mode: 'plain' } })).toBe('Rows to send: each row where')
})

test('a field is shown and entered, also one that is folded away', () => {
  Element.prototype.scrollIntoView = () => undefined
  document.body.innerHTML = `
    <div id="schedule"><label for="other">Repeat</label><input id="other"></div>
    <div id="delivery">
      <fieldset><legend>Files</legend><select id="format"></select></fieldset>
      <details><summary>More settings</summary><details><summary>Escalate</summary>
        <label for="limit">Max per hour</label><input id="limit">
      </details></details>
    </div>`
  expect(showField('delivery', 'Max per hour')).toBe(true)
  expect(document.activeElement?.id).toBe('limit')
  expect([...document.querySelectorAll('details')].map((each) => each.open)).toEqual([true, true])
  expect(showField('delivery', 'Files')).toBe(true)
  expect(document.activeElement?.id).toBe('format')
  expect(showField('delivery', 'Repeat')).toBe(false)
})
