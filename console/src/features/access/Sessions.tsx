import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { timeWords } from '../../shared/words'
import { endOtherSessions, endSession, sessions } from './api'
import { t } from '../../messages'

/** Where one is logged in, and the end of that. */
export function Sessions() {
  const all = useQuery(sessions)
  const client = useQueryClient()
  const onSuccess = () => client.invalidateQueries({ queryKey: sessions.queryKey })
  const end = useMutation({ mutationFn: (id: string) => endSession(id), onSuccess })
  const endOthers = useMutation({ mutationFn: endOtherSessions, onSuccess })
  return (
    <section className="sheet">
      <h2>{t('access.sessions')}</h2>
      <p className="small quiet mb-2">{t('access.sessions_help')}</p>
      <Loaded query={all} what={t('loading.the_sessions')}>
        {(list) => (
          <>
            <ul className="list-unstyled mb-2">
              {list.map(({ id, beganAt, usedAt, current }) => (
                <li key={id} className="d-flex flex-wrap gap-2 align-items-center mb-1">
                  <span>{t('access.began_used', { began: timeWords(beganAt), used: timeWords(usedAt) })}</span>
                  {current ? (
                    <span className="quiet">{t('access.this_session')}</span>
                  ) : (
                    <Button size="sm" variant="plain" disabled={end.isPending} onClick={() => end.mutate(id)}>
                      {t('access.end')}
                    </Button>
                  )}
                </li>
              ))}
            </ul>
            {list.length > 1 && (
              <Button size="sm" variant="plain" disabled={endOthers.isPending} onClick={() => endOthers.mutate()}>
                {t('access.end_all_others')}
              </Button>
            )}
          </>
        )}
      </Loaded>
      <Refusal error={end.error ?? endOthers.error} />
    </section>
  )
}
