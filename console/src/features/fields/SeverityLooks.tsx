import { Form } from 'react-bootstrap'
import type { Severity } from '../../api/types'
import { t } from '../../messages'
import { Choice } from '../../shared/Choice'
import { SeverityTag } from '../../shared/SeverityTag'
import { stateWords } from '../../shared/words'
import type { Layout } from './layout'

type Written = NonNullable<Layout['severities']>[number]
type Look = Exclude<Written, string>
type Level = Look['level']
type Colour = NonNullable<Look['colour']>

const levels: Level[] = ['critical', 'warning', 'notice']
const usual: Record<Level, Colour> = { critical: 'red', warning: 'amber', notice: 'grey' }
const colours: [Colour, string][] = [
  ['red', t('editor.colour_red')],
  ['amber', t('editor.colour_amber')],
  ['grey', t('editor.colour_grey')],
  ['green', t('editor.colour_green')],
  ['blue', t('editor.colour_blue')],
  ['violet', t('editor.colour_violet')],
]
const longest = 30

const looksOf = (layout: Layout): Look[] =>
  (layout.severities ?? []).map((each) => (typeof each === 'string' ? { level: each } : each))

type Props = { layout: Layout; put: (edits: Pick<Layout, 'severities'>) => void }

/** The word and the colour of each severity, in messages, files and the console. */
export function SeverityLooks({ layout, put }: Props) {
  const looks = looksOf(layout)
  const of = (level: Level) => looks.find((each) => each.level === level) ?? { level }
  const change = (changed: Look) => {
    const all = levels.map((each) => (each === changed.level ? changed : of(each)))
    put({ severities: all.filter((each) => each.word || each.colour) })
  }
  return (
    <fieldset className="mt-2">
      <legend className="small quiet mb-1">{t('editor.severity_looks')}</legend>
      {levels.map((level) => {
        const look = of(level)
        const severity = level.toUpperCase() as Severity
        const colour = look.colour ?? usual[level]
        return (
          <div key={level} className="severity-look">
            <Form.Control
              id={`severity-word-${level}`}
              size="sm"
              maxLength={longest}
              aria-label={t('editor.severity_word', { level: stateWords(severity) })}
              placeholder={stateWords(severity)}
              value={look.word ?? ''}
              onChange={(event) => change(lookOf(level, event.target.value, look.colour))}
            />
            <Choice
              id={`severity-colour-${level}`}
              label={t('editor.severity_colour', { level: stateWords(severity) })}
              hiddenLabel
              value={colour}
              options={colours}
              onChange={(chosen) => change(lookOf(level, look.word, chosen === usual[level] ? '' : chosen))}
            />
            <SeverityTag
              severity={severity}
              look={{ word: look.word?.trim() ? look.word : null, colour: colour.toUpperCase() as Uppercase<Colour> }}
            />
          </div>
        )
      })}
    </fieldset>
  )
}

const lookOf = (level: Level, word: string | undefined, colour: Colour | '' | undefined): Look => ({
  level,
  ...(word ? { word } : {}),
  ...(colour ? { colour } : {}),
})
