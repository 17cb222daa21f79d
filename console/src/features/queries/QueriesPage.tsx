import { useState } from 'react'
import { Form, Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { timeWords } from '../../shared/words'
import { queries, type QuerySummary } from './api'
import { rich, t } from '../../messages'

export function QueriesPage() {
  useTitle(t('shared.queries'))
  const all = useQuery(queries)
  return (
    <>
      <div className="head">
        <h1>{t('shared.queries')}</h1>
        <Link className="btn btn-primary" to="/queries/new">
          {t('queries.new_query')}
        </Link>
      </div>
      <Loaded query={all} what={t('loading.the_queries')}>
        {(list) => (list.length === 0 ? <NoQueries /> : <Found list={list} />)}
      </Loaded>
    </>
  )
}

function NoQueries() {
  return (
    <p className="sheet">
      {rich('queries.no_queries_yet_write_the', { link: (inner) => <Link to="/queries/new">{inner}</Link> })}
    </p>
  )
}

const nothing = t('queries.without_a_category')

const matches = (query: QuerySummary, words: string[]) => {
  const text = [query.name, query.title, query.source, ...query.categories, ...query.columns].join('\n').toLowerCase()
  return words.every((word) => text.includes(word))
}

function Found({ list }: { list: QuerySummary[] }) {
  const [sought, setSought] = useState('')
  const [category, setCategory] = useState('')
  const categories = [...new Set(list.flatMap((query) => query.categories))].sort((a, b) => a.localeCompare(b))
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean)
  const found = list.filter(
    (query) =>
      matches(query, words) &&
      (category === '' || (category === nothing ? query.categories.length === 0 : query.categories.includes(category))),
  )
  return (
    <section className="sheet">
      <div className="d-flex flex-wrap gap-3 align-items-end">
        <Form.Group controlId="query-search" className="flex-grow-1">
          <Form.Label className="mb-0 small quiet">{t('queries.search_names_sources_categories_and')}</Form.Label>
          <Form.Control type="search" value={sought} onChange={(event) => setSought(event.target.value)} />
        </Form.Group>
        <Form.Group controlId="query-category">
          <Form.Label className="mb-0 small quiet">{t('queries.category')}</Form.Label>
          <Form.Select value={category} onChange={(event) => setCategory(event.target.value)}>
            <option value="">{t('shared.all')}</option>
            {categories.map((each) => (
              <option key={each}>{each}</option>
            ))}
            <option>{nothing}</option>
          </Form.Select>
        </Form.Group>
      </div>
      <p className="small quiet mt-2 mb-0" role="status">
        {found.length === list.length
          ? t('queries.query', { list: list.length })
          : t('queries.query_of', { found: found.length, list: list.length })}
      </p>
      <Scroll label={t('shared.queries')}>
        <Table>
          <thead>
            <tr>
              <th>{t('shared.query')}</th>
              <th>{t('shared.source')}</th>
              <th>{t('queries.categories')}</th>
              <th className="num">{t('shared.rules')}</th>
              <th className="num">{t('queries.revision')}</th>
              <th>{t('shared.saved')}</th>
            </tr>
          </thead>
          <tbody>
            {found.map((query) => (
              <tr key={query.name}>
                <td>
                  <Link to={`/queries/${query.name}`}>{query.title}</Link>
                  <div className="small quiet">{query.columns.join(', ')}</div>
                </td>
                <td>{query.source}</td>
                <td>{query.categories.join(', ') || <span className="quiet">{t('shared.none')}</span>}</td>
                <td className="num">{query.rules}</td>
                <td className="num">{query.revision}</td>
                <td className="text-nowrap">
                  {timeWords(query.savedAt)}
                  {query.savedBy && <div className="small quiet">{query.savedBy}</div>}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
    </section>
  )
}
