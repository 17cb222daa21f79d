import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { choicesOf, endChoice, resubscribe, unsubscribedOf, type Sender } from './api'
import { choiceWords } from './choice'
import { rich, t } from '../../messages'

/** What recipients of a rule or a round-up chose by the link in a message; nothing if all get it as it is sent. */
export function RecipientChoices({ of }: { of: Sender }) {
  const unsubscribed = useQuery(unsubscribedOf(of))
  const choices = useQuery(choicesOf(of))
  const client = useQueryClient()
  const refresh = () => client.invalidateQueries({ queryKey: [of.kind, of.name] })
  const back = useMutation({ mutationFn: (address: string) => resubscribe(of, address), onSuccess: refresh })
  const end = useMutation({ mutationFn: (address: string) => endChoice(of, address), onSuccess: refresh })
  const gone = (unsubscribed.data ?? []).filter(({ resubscribedAt }) => resubscribedAt === null)
  const chosen = choices.data ?? []
  if (gone.length === 0 && chosen.length === 0) return null
  const failed = back.error ?? end.error
  return (
    <section className="sheet">
      <h2>{t('recipients.chosen_by_recipients')}</h2>
      <p className="small quiet mb-1">{t('recipients.by_the_link_in_each_message')}</p>
      {gone.map(({ address, unsubscribedAt }) => (
        <p key={address} className="d-flex gap-2 align-items-center flex-wrap mb-1">
          <span className="text-break">
            {address}{' '}
            <span className="quiet">{t('recipients.unsubscribed', { unsubscribedAt: timeWords(unsubscribedAt) })}</span>
          </span>
          <Button
            variant="plain"
            size="sm"
            disabled={back.isPending}
            onClick={() =>
              window.confirm(t('recipients.resubscribe_do_so_only_if', { address })) && back.mutate(address)
            }
          >
            {rich('recipients.resubscribe', {
              span: (inner) => <span className="visually-hidden">{inner}</span>,
              address,
            })}
          </Button>
        </p>
      ))}
      {chosen.map((choice) => (
        <p key={choice.address} className="d-flex gap-2 align-items-center flex-wrap mb-1">
          <span className="text-break">
            {choice.address} <span className="quiet">{choiceWords(choice)}</span>
          </span>
          <Button
            variant="plain"
            size="sm"
            disabled={end.isPending}
            onClick={() =>
              window.confirm(t('recipients.end_choice_question', { address: choice.address })) &&
              end.mutate(choice.address)
            }
          >
            {rich('recipients.end_choice', {
              span: (inner) => <span className="visually-hidden">{inner}</span>,
              address: choice.address,
            })}
          </Button>
        </p>
      ))}
      <div role="status">{failed && <p className="callout bad mb-0">{failed.message}</p>}</div>
    </section>
  )
}
