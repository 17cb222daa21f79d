/** A text with another at the caret, or in place of what is selected, and where the caret is afterwards. */
export function insertedAt(text: string, { from, to }: { from: number; to: number }, inserted: string) {
  return { text: text.slice(0, from) + inserted + text.slice(to), caret: from + inserted.length }
}

/** The first rows of the message in a text, by their first column. */
export const rowsSection = (columns: string[]) => `{{#rows}}{{${columns[0] ?? 'severity'}}} {{/rows}}`
