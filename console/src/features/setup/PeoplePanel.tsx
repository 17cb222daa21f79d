import { useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { usePerson } from '../../shared/person'
import { Scroll } from '../../shared/Scroll'
import { timeWords } from '../../shared/words'
import { AccessPolicy } from './AccessPolicy'
import { everybody, people, teams, type Somebody } from './api'
import { roleWords } from './roles'
import { NewTeam, TeamEntry } from './TeamForms'
import { NewUser, UserForm } from './UserForms'
import { t } from '../../messages'

/** Users, and the teams that own rules and get failure notices. */
export function PeoplePanel() {
  const person = usePerson()
  const operator = person.role === 'OPERATOR'
  const all = useQuery(operator ? everybody : people)
  const owners = useQuery(teams)
  const teamNames = (owners.data ?? []).map(({ name }) => name)
  return (
    <section className="sheet">
      <h2>{t('setup.users')}</h2>
      <Loaded query={all} what={t('loading.the_users')}>
        {(list) => <Users list={list} teams={operator ? teamNames : null} />}
      </Loaded>
      {operator ? (
        <NewUser teams={teamNames} />
      ) : (
        <p className="small quiet mt-2 mb-0">{t('setup.only_operators_can_add_users')}</p>
      )}
      <AccessPolicy canChange={operator} />
      <h2 className="mt-4">{t('setup.teams')}</h2>
      <Loaded query={owners} what={t('loading.the_teams')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('setup.no_teams_yet_operators_get')}</p>
          ) : (
            list.map((team) => (
              <TeamEntry
                key={team.name}
                team={team}
                users={all.data ?? []}
                others={teamNames.filter((each) => each !== team.name)}
                canChange={operator}
                canSetMembers={operator || (person.role === 'LEAD' && person.teams.includes(team.name))}
              />
            ))
          )
        }
      </Loaded>
      {operator ? <NewTeam /> : <p className="small quiet mt-2 mb-0">{t('setup.only_operators_can_change_teams')}</p>}
    </section>
  )
}

/** @param teams that a user can be put in; null for those who may not change users */
function Users({ list, teams: possible }: { list: Somebody[]; teams: string[] | null }) {
  const [changing, setChanging] = useState<string | null>(null)
  const chosen = list.find(({ login }) => login === changing)
  return (
    <>
      <Scroll label={t('setup.users')}>
        <Table size="sm" className="cards">
          <thead>
            <tr>
              <th>{t('shared.name')}</th>
              <th>{t('setup.log_in')}</th>
              <th>{t('shared.address')}</th>
              <th>{t('setup.role')}</th>
              <th>{t('setup.teams')}</th>
              <th>{t('setup.last_log_in')}</th>
              {possible && (
                <th>
                  <span className="visually-hidden">{t('shared.change')}</span>
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {list.map((each) => (
              <tr key={each.login} className={each.active ? '' : 'quiet'}>
                <td className="main">{each.name}</td>
                <td data-label={t('setup.log_in')}>{each.login}</td>
                <td data-label={t('shared.address')}>{each.email}</td>
                <td data-label={t('setup.role')}>
                  {roleWords(each.role)}
                  {each.service && `, ${t('setup.service_account')}`}
                  {!each.active && `, ${t('setup.disabled')}`}
                </td>
                <td data-label={t('setup.teams')}>
                  {each.teams.length === 0 ? <span className="quiet">{t('shared.none')}</span> : each.teams.join(', ')}
                </td>
                <td data-label={t('setup.last_log_in')} className="text-nowrap">
                  {each.lastLogInAt ? (
                    timeWords(each.lastLogInAt)
                  ) : (
                    <span className="quiet">{each.invited ? t('setup.invited') : t('setup.unknown_log_in')}</span>
                  )}
                </td>
                {possible && (
                  <td>
                    <Button
                      size="sm"
                      variant="plain"
                      aria-label={t('setup.change_user', { name: each.name })}
                      onClick={() => setChanging(each.login)}
                    >
                      {t('shared.change')}
                    </Button>
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
      {possible && chosen && (
        <UserForm
          key={chosen.login}
          user={chosen}
          others={list.filter(({ login, active, service }) => active && !service && login !== chosen.login)}
          teams={possible}
          onClose={() => setChanging(null)}
        />
      )}
    </>
  )
}
