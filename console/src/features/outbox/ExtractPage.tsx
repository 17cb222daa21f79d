import { Link, useParams } from 'react-router'
import { Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { useTitle } from '../../shared/title'
import { timeWords } from '../../shared/words'
import { keptExtract, type KeptExtract } from './api'

/** What a mail reported, as it was then: where the link in the mail leads. */
export function ExtractPage() {
  const { id = '' } = useParams()
  const extract = useQuery(keptExtract(id))
  return (
    <Loaded query={extract} what="The report">
      {(data) => <OneExtract extract={data} />}
    </Loaded>
  )
}

const size = (bytes: number) =>
  bytes < 100_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`

function OneExtract({ extract: { message, subject, rule, slot, files } }: { extract: KeptExtract }) {
  useTitle(subject)
  return (
    <>
      <h1>{subject}</h1>
      <span className="quiet">
        Report as sent {timeWords(slot)}
        {rule && (
          <>
            {' '}
            · <Link to={`/rules/${rule}`}>Open findings now</Link>
          </>
        )}{' '}
        · <Link to={`/outbox/${message}`}>Recipients</Link>
      </span>
      {files.length > 0 && (
        <section className="sheet">
          <h2>Files</h2>
          <Table>
            <tbody>
              {files.map((file, place) => (
                <tr key={file.name}>
                  <td>
                    <a href={`/api/extracts/${message}/files/${place}`} download>
                      {file.name}
                    </a>
                  </td>
                  <td className="num quiet">{size(file.bytes)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </section>
      )}
      <div className="mt-3">
        <iframe className="mail-view" title="The rows of the report" sandbox="" src={`/api/extracts/${message}/rows`} />
      </div>
    </>
  )
}
