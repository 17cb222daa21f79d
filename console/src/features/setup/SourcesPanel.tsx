import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { NumberField } from '../../shared/NumberField'
import { Loaded } from '../../shared/Loading'
import { usePerson } from '../../shared/person'
import { Refusal } from '../../shared/Refusal'
import { numberWords } from '../../shared/words'
import { saveSource, sources, teams, testSource, type Source, type SourceAsk, type SourceTest } from './api'
import { rich, t } from '../../messages'

/** The sources that queries read. */
export function SourcesPanel() {
  const all = useQuery(sources)
  const operator = usePerson().role === 'OPERATOR'
  return (
    <section className="sheet" id="sources">
      <h2>{t('setup.sources')}</h2>
      <Loaded query={all} what={t('loading.the_sources')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              {rich('setup.no_sources_yet_an_operator', { code: (inner) => <code>{inner}</code> })}
            </p>
          ) : (
            <>
              {list.map((source) => (
                <One key={source.name} source={source} operator={operator} />
              ))}
            </>
          )
        }
      </Loaded>
      {operator ? <Edit /> : <p className="small quiet mt-2 mb-0">{t('setup.only_operators_can_add_and')}</p>}
    </section>
  )
}

function One({ source, operator }: { source: Source; operator: boolean }) {
  const ask = useMutation({ mutationFn: () => testSource(source.name) })
  return (
    <div className="mt-2">
      <strong>{source.name}</strong>{' '}
      <Button
        variant="plain"
        size="sm"
        disabled={ask.isPending}
        onClick={() => ask.mutate()}
        aria-label={t('setup.test_connection_to', { name: source.name })}
      >
        {t('setup.test_connection')}
      </Button>
      <p className="small quiet mb-0 text-break">
        {t('setup.as_max_rows_s_at', {
          jdbcUrl: source.jdbcUrl,
          username: source.username,
          maxRows: numberWords(source.maxRows),
          timeLimitSeconds: numberWords(source.timeLimitSeconds),
          maxConnections: numberWords(source.maxConnections),
          closed: source.closed && t('setup.closed', { closed: source.closed }),
          spreadSeconds:
            source.spreadSeconds > 0 &&
            t('setup.checks_start_up_to_s', { spreadSeconds: numberWords(source.spreadSeconds) }),
        })}
      </p>
      {source.teams.length > 0 && (
        <p className="small quiet mb-0">{t('setup.for_teams', { teams: source.teams.join(', ') })}</p>
      )}
      <div role="status" className="small">
        {ask.data && <Tested test={ask.data} />}
        {ask.isError && <span className="callout bad">{ask.error.message}</span>}
      </div>
      {operator && <Edit source={source} />}
    </div>
  )
}

function Tested({ test }: { test: SourceTest }) {
  return (
    <>
      <span className={test.reached ? 'callout' : 'callout bad'}>{test.detail}</span>
      {test.warnings.map((warning) => (
        <div key={warning} className="text-break">
          {rich('setup.warning', { span: (inner) => <span aria-hidden="true">{inner}</span>, warning })}
        </div>
      ))}
    </>
  )
}

function Edit({ source }: { source?: Source }) {
  const id = source?.name ?? 'new'
  const [name, setName] = useState(source?.name ?? '')
  const [ask, setAsk] = useState<SourceAsk>({
    jdbcUrl: source?.jdbcUrl ?? 'jdbc:postgresql://127.0.0.1:5432/',
    username: source?.username ?? '',
    maxRows: source?.maxRows ?? 1_000_000,
    timeLimitSeconds: source?.timeLimitSeconds ?? 60,
    maxConnections: source?.maxConnections ?? 8,
    closed: source?.closed ?? '',
    spreadSeconds: source?.spreadSeconds ?? 0,
    teams: source?.teams ?? [],
  })
  const client = useQueryClient()
  const { password, ...others } = ask
  const save = useMutation({
    mutationFn: () => saveSource(name, password ? ask : others),
    onSuccess: () => {
      setAsk({ ...others })
      return client.invalidateQueries({ queryKey: sources.queryKey })
    },
  })
  // The stored password is for the server and the user that it was given for.
  const moved = !!source && (ask.jdbcUrl !== source.jdbcUrl || ask.username !== source.username)
  const put = (part: Partial<SourceAsk>) => setAsk({ ...ask, ...part })
  return (
    <details className="entry">
      <summary>{source ? t('setup.change', { name: source.name }) : t('setup.add_source')}</summary>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <div className="fields">
          {!source && (
            <Form.Group controlId={`name-${id}`}>
              <Form.Label className="mb-0 small quiet">{t('shared.name')}</Form.Label>
              <Form.Control size="sm" required value={name} onChange={(event) => setName(event.target.value)} />
            </Form.Group>
          )}
          <Form.Group controlId={`url-${id}`} className="whole">
            <Form.Label className="mb-0 small quiet">{t('setup.jdbc_address')}</Form.Label>
            <Form.Control
              size="sm"
              required
              value={ask.jdbcUrl}
              onChange={(event) => put({ jdbcUrl: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId={`user-${id}`}>
            <Form.Label className="mb-0 small quiet">{t('setup.user_read_only')}</Form.Label>
            <Form.Control
              size="sm"
              required
              autoComplete="off"
              value={ask.username}
              onChange={(event) => put({ username: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId={`password-${id}`}>
            <Form.Label className="mb-0 small quiet">{t('shared.password')}</Form.Label>
            <Form.Control
              size="sm"
              type="password"
              autoComplete="new-password"
              required={!source || moved}
              placeholder={moved ? t('setup.enter_it_again_the_address') : source ? t('setup.unchanged') : ''}
              value={ask.password ?? ''}
              onChange={(event) => put({ password: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId={`rows-${id}`}>
            <Form.Label className="mb-0 small quiet">{t('setup.max_rows')}</Form.Label>
            <NumberField
              size="sm"
              least={1}
              value={ask.maxRows ?? 1_000_000}
              onChange={(maxRows) => put({ maxRows })}
            />
          </Form.Group>
          <Form.Group controlId={`limit-${id}`}>
            <Form.Label className="mb-0 small quiet">{t('setup.max_seconds')}</Form.Label>
            <NumberField
              size="sm"
              least={1}
              most={86_400}
              value={ask.timeLimitSeconds ?? 60}
              onChange={(timeLimitSeconds) => put({ timeLimitSeconds })}
            />
          </Form.Group>
          <Form.Group controlId={`connections-${id}`}>
            <Form.Label className="mb-0 small quiet">{t('setup.max_queries_at_a_time')}</Form.Label>
            <NumberField
              size="sm"
              least={2}
              most={100}
              value={ask.maxConnections ?? 8}
              onChange={(maxConnections) => put({ maxConnections })}
            />
          </Form.Group>
          <Form.Group controlId={`closed-${id}`}>
            <Form.Label className="mb-0 small quiet">{t('setup.closed_hours')}</Form.Label>
            <Form.Control
              size="sm"
              placeholder={t('setup.02_00_04_00_europe')}
              value={ask.closed ?? ''}
              onChange={(event) => put({ closed: event.target.value })}
            />
          </Form.Group>
          <TeamsOf id={id} value={ask.teams ?? []} onChange={(chosen) => put({ teams: chosen })} />
        </div>
        <Button type="submit" size="sm" variant="plain" className="mt-2" disabled={save.isPending}>
          {t('setup.save_source')}
        </Button>
        <div role="status">
          <Refusal error={save.error} />
          {save.isSuccess && (
            <div className="small mt-2">
              <Tested
                test={{ ...save.data.test, detail: t('setup.saved_and_tested', { detail: save.data.test.detail }) }}
              />
            </div>
          )}
        </div>
      </Form>
    </details>
  )
}

/** The teams whose members may use it; none chosen: every team. */
function TeamsOf({ id, value, onChange }: { id: string; value: string[]; onChange: (teams: string[]) => void }) {
  const known = useQuery(teams)
  const all = [...new Set([...(known.data ?? []).map((team) => team.name), ...value])]
  if (all.length === 0) return null
  return (
    <fieldset className="whole">
      <legend className="mb-0 small quiet">{t('setup.teams_that_may_use_it')}</legend>
      {all.map((team) => (
        <Form.Check
          inline
          key={team}
          id={`${id}-for-${team}`}
          label={team}
          checked={value.includes(team)}
          onChange={(event) =>
            onChange(event.target.checked ? [...value, team] : value.filter((each) => each !== team))
          }
        />
      ))}
      <p className="small quiet mb-0">{t('setup.teams_that_may_use_it_help')}</p>
    </fieldset>
  )
}
