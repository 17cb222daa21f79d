import { Link, useParams } from 'react-router'
import { Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { useTitle } from '../../shared/title'
import { bytesWords, timeWords } from '../../shared/words'
import { keptExtract, type KeptExtract } from './api'
import { rich, t } from '../../messages'

/** What a mail reported, as it was then: where the link in the mail leads. */
export function ExtractPage() {
  const { id = '' } = useParams()
  const extract = useQuery(keptExtract(id))
  return (
    <Loaded query={extract} what={t('loading.the_report')}>
      {(data) => <OneExtract extract={data} />}
    </Loaded>
  )
}

function OneExtract({ extract: { message, subject, rule, slot, files } }: { extract: KeptExtract }) {
  useTitle(subject)
  return (
    <>
      <h1>{subject}</h1>
      <span className="quiet">
        {rich('outbox.report_as_sent_recipients', {
          slot: timeWords(slot),
          rule: rule && (
            <>
              {' '}
              · <Link to={`/rules/${rule}`}>{t('outbox.open_findings_now')}</Link>
            </>
          ),
          link: (inner) => <Link to={`/outbox/${message}`}>{inner}</Link>,
        })}
      </span>
      {files.length > 0 && (
        <section className="sheet">
          <h2>{t('outbox.files')}</h2>
          <Table>
            <tbody>
              {files.map((file, place) => (
                <tr key={file.name}>
                  <td>
                    <a href={`/api/extracts/${message}/files/${place}`} download>
                      {file.name}
                    </a>
                  </td>
                  <td className="num quiet">{bytesWords(file.bytes)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </section>
      )}
      <div className="mt-3">
        <iframe
          className="mail-view"
          title={t('outbox.the_rows_of_the_report')}
          sandbox=""
          src={`/api/extracts/${message}/rows`}
        />
      </div>
    </>
  )
}
