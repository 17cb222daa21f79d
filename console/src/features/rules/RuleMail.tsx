import { Link } from 'react-router'
import { Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { timeWords } from '../../shared/words'
import { outbox } from '../outbox/api'
import { SendOpen } from './SendOpen'
import { t } from '../../messages'

const shown = 6

type Props = { name: string; named: string[]; plain: boolean; maySend: boolean }

/** The newest messages of a rule. */
export function RuleMail({ name, named, plain, maySend }: Props) {
  const messages = useQuery(outbox({ rule: name }))
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('shared.messages')}</h2>
        <Link className="small quiet" to={`/outbox?rule=${name}`}>
          {t('rules.all_in_the_outbox')}
        </Link>
      </div>
      <Loaded query={messages} what={t('loading.the_messages')}>
        {({ messages: list }) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('shared.no_messages_yet_a_check')}</p>
          ) : (
            <Scroll label={t('shared.messages')}>
              <Table size="sm">
                <tbody>
                  {list.slice(0, shown).map((mail) => (
                    <tr key={mail.id}>
                      <td className="text-nowrap quiet">{timeWords(mail.createdAt)}</td>
                      <td>
                        <Link to={`/outbox/${mail.id}`}>{mail.subject}</Link>
                      </td>
                      <td className="text-nowrap">
                        {mail.recipients.every(({ state }) => state === 'SENT')
                          ? t('rules.sent_to_person', { recipients: mail.recipients.length })
                          : mail.recipients.map(({ state }) => state.toLowerCase()).join(', ')}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Table>
            </Scroll>
          )
        }
      </Loaded>
      {maySend && <SendOpen name={name} named={named} plain={plain} />}
    </section>
  )
}
