import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { unsubscribedOf, resubscribe } from './api'
import { rich, t } from '../../messages'

/** Recipients who unsubscribed from the rule; nothing if there are none. */
export function UnsubscribedRecipients({ name }: { name: string }) {
  const unsubscribed = useQuery(unsubscribedOf(name))
  const client = useQueryClient()
  const back = useMutation({
    mutationFn: (address: string) => resubscribe(name, address),
    onSuccess: () => client.invalidateQueries({ queryKey: ['rules', name, 'unsubscribed'] }),
  })
  const gone = (unsubscribed.data ?? []).filter(({ resubscribedAt }) => resubscribedAt === null)
  if (gone.length === 0) return null
  return (
    <section className="sheet">
      <h2>{t('rules.unsubscribed')}</h2>
      {gone.map(({ address, unsubscribedAt }) => (
        <p key={address} className="d-flex gap-2 align-items-center flex-wrap mb-1">
          <span>
            {address}{' '}
            <span className="quiet">{t('rules.by_a_link_in_a', { unsubscribedAt: timeWords(unsubscribedAt) })}</span>
          </span>
          <Button
            variant="plain"
            size="sm"
            disabled={back.isPending}
            onClick={() => window.confirm(t('rules.resubscribe_do_so_only_if', { address })) && back.mutate(address)}
          >
            {rich('rules.resubscribe', { span: (inner) => <span className="visually-hidden">{inner}</span>, address })}
          </Button>
        </p>
      ))}
      <div role="status">{back.isError && <p className="callout bad mb-0">{back.error.message}</p>}</div>
    </section>
  )
}
