import { useState } from 'react'
import { Form, Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { plural, timeWords } from '../../shared/words'
import { queries, type QuerySummary } from './api'

export function QueriesPage() {
  useTitle('Queries')
  const all = useQuery(queries)
  return (
    <>
      <div className="head">
        <h1>Queries</h1>
        <Link className="btn btn-primary" to="/queries/new">
          New query
        </Link>
      </div>
      <Loaded query={all} what="The queries">
        {(list) => (list.length === 0 ? <NoQueries /> : <Found list={list} />)}
      </Loaded>
    </>
  )
}

function NoQueries() {
  return (
    <p className="sheet">
      No queries yet. <Link to="/queries/new">Write the first</Link>: one SELECT on a source. Rules watch its result.
    </p>
  )
}

const nothing = 'without a category'

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
          <Form.Label className="mb-0 small quiet">Search names, sources, categories and columns</Form.Label>
          <Form.Control type="search" value={sought} onChange={(event) => setSought(event.target.value)} />
        </Form.Group>
        <Form.Group controlId="query-category">
          <Form.Label className="mb-0 small quiet">Category</Form.Label>
          <Form.Select value={category} onChange={(event) => setCategory(event.target.value)}>
            <option value="">all</option>
            {categories.map((each) => (
              <option key={each}>{each}</option>
            ))}
            <option>{nothing}</option>
          </Form.Select>
        </Form.Group>
      </div>
      <p className="small quiet mt-2 mb-0" role="status">
        {found.length === list.length
          ? plural(list.length, 'query', 'queries')
          : `${plural(found.length, 'query', 'queries')} of ${list.length}`}
      </p>
      <Scroll label="Queries">
        <Table>
          <thead>
            <tr>
              <th>Query</th>
              <th>Source</th>
              <th>Categories</th>
              <th className="num">Rules</th>
              <th className="num">Revision</th>
              <th>Saved</th>
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
                <td>{query.categories.join(', ') || <span className="quiet">none</span>}</td>
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
