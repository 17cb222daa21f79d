import { Table } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { numberWords, stateWords, timeWords } from '../../shared/words'
import { reader, type Reader } from './api'
import { choiceWords } from './choice'
import { rich, t } from '../../messages'

export function RecipientPage() {
  const { address = '' } = useParams()
  const one = useQuery(reader(address))
  return (
    <Loaded query={one} what={t('loading.the_reader')}>
      {(data) => <One reader={data} />}
    </Loaded>
  )
}

/** What one address gets, why, and what keeps it from getting any. */
function One({ reader: who }: { reader: Reader }) {
  useTitle(who.address)
  return (
    <>
      <h1 className="text-break">{who.address}</h1>
      <p className="quiet mb-0">
        <Link to="/recipients">{t('shared.all_recipients')}</Link> ·{' '}
        <Link to={`/outbox?q=${encodeURIComponent(who.address)}`}>{t('recipients.messages_in_the_outbox')}</Link>
        {who.language && t('recipients.language', { language: who.language })}
      </p>
      {who.blocked && (
        <p className="callout bad mt-2">
          {rich('recipients.nothing_is_sent_to_this', {
            blocked: who.blocked,
            link: (inner) => <Link to="/outbox">{inner}</Link>,
          })}
        </p>
      )}
      <section className="sheet">
        <h2>{t('recipients.what_this_recipient_gets')}</h2>
        {who.gets.length === 0 ? (
          <p className="quiet mt-2 mb-0">{t('recipients.nothing_no_rule_or_round')}</p>
        ) : (
          <Scroll label={t('recipients.what_it_gets')}>
            <Table>
              <thead>
                <tr>
                  <th>{t('recipients.rule_or_round_up')}</th>
                  <th>{t('shared.state')}</th>
                  <th>{t('recipients.recipient_field')}</th>
                  <th className="num">{t('recipients.messages_in_30_days')}</th>
                  <th>{t('shared.last')}</th>
                </tr>
              </thead>
              <tbody>
                {who.gets.map((each) => (
                  <tr key={`${each.kind} ${each.name}`}>
                    <td>
                      {each.kind === 'rule' ? (
                        <Link to={`/rules/${each.name}`}>{each.title}</Link>
                      ) : (
                        <Link to="/setup">{t('recipients.a_round_up', { title: each.title })}</Link>
                      )}
                      {each.choice && <div className="small">{choiceWords(each.choice)}</div>}
                      {each.unsubscribedAt && (
                        <div className="small problem-text">
                          {t('recipients.unsubscribed', { unsubscribedAt: timeWords(each.unsubscribedAt) })}
                        </div>
                      )}
                    </td>
                    <td>{each.state ? stateWords(each.state) : ''}</td>
                    <td>{each.how.join('; ')}</td>
                    <td className="num">{numberWords(each.messages)}</td>
                    <td className="text-nowrap">
                      {each.lastAt ? timeWords(each.lastAt) : <span className="quiet">{t('shared.never')}</span>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Scroll>
        )}
      </section>
    </>
  )
}
