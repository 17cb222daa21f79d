import { Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { people, saveMembers, teams, type Somebody, type Team } from './api'
import { t } from '../../messages'

/** Who is in a team; for those who may say so, a box for each user. */
export function TeamMembers({ team, users, canChange }: { team: Team; users: Somebody[]; canChange: boolean }) {
  const client = useQueryClient()
  const save = useMutation({
    mutationFn: (members: string[]) => saveMembers(team.name, members),
    onSuccess: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: teams.queryKey }),
        client.invalidateQueries({ queryKey: people.queryKey }),
      ]),
  })
  const nameOf = (login: string) => users.find((each) => each.login === login)?.name ?? login
  if (!canChange)
    return (
      <p className="small mb-1">
        {team.members.length === 0
          ? t('setup.no_members')
          : t('setup.members', { members: team.members.map(nameOf).join(', ') })}
      </p>
    )
  return (
    <fieldset className="mb-2" disabled={save.isPending}>
      <legend className="mb-0 small quiet">{t('setup.members_of', { team: team.name })}</legend>
      {users
        .filter(({ active }) => active)
        .map(({ login, name }) => (
          <Form.Check
            inline
            key={login}
            type="checkbox"
            id={`member-${team.name}-${login}`}
            label={name}
            checked={team.members.includes(login)}
            onChange={(event) =>
              save.mutate(
                event.target.checked ? [...team.members, login] : team.members.filter((each) => each !== login),
              )
            }
          />
        ))}
      <Refusal error={save.error} />
    </fieldset>
  )
}
