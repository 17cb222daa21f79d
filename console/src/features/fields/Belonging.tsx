import { Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { teams } from '../setup/api'
import { OwnerField } from './OwnerAndZone'
import { t } from '../../messages'

type Belonging = { owner?: string; visible_to?: string[] }

/** What changes. A list without teams is seen by everybody. */
type Part = { owner?: string; visible_to: string[] }

type Sight = 'EVERYBODY' | 'OWNER' | 'TEAMS'

/** The owner of a rule or a round-up, and who sees it beside its owner. */
export function BelongingFields({ value, onChange }: { value: Belonging; onChange: (part: Part) => void }) {
  return (
    <>
      <OwnerField value={value.owner ?? ''} onChange={(owner) => onChange(ownedBy(value, owner))} />
      <VisibleTo value={value} help={t('fields.who_sees_it_help')} onChange={onChange} />
    </>
  )
}

/** The same of what several rules use, which may belong to all teams. */
export function SharedBelongingFields({
  value,
  onChange,
}: {
  value: Belonging
  onChange: (part: { owner?: string | undefined; visible_to: string[] }) => void
}) {
  return (
    <>
      <div>
        <OwnerField
          value={value.owner ?? ''}
          onChange={(owner) => onChange(owner === '' ? { owner: undefined, visible_to: [] } : ownedBy(value, owner))}
        />
        <p className="small quiet mb-0">{t('fields.shared_owner_help')}</p>
      </div>
      {value.owner && <VisibleTo value={value} help={t('fields.who_sees_shared_help')} onChange={onChange} />}
    </>
  )
}

/** What is for its owner alone stays so under another owner. */
export function ownedBy(value: Belonging, owner: string): { owner: string; visible_to: string[] } {
  if (!value.visible_to?.length) return { owner, visible_to: [] }
  const others = value.visible_to.filter((team) => team !== value.owner && team !== owner)
  return { owner, visible_to: [owner, ...others] }
}

function VisibleTo({ value, help, onChange }: { value: Belonging; help: string; onChange: (part: Part) => void }) {
  const known = useQuery(teams)
  const owner = value.owner ?? ''
  const chosen = value.visible_to?.filter((team) => team !== owner) ?? []
  const others = [...new Set([...(known.data ?? []).map((team) => team.name), ...chosen])].filter(
    (team) => team !== owner,
  )
  const sight: Sight = !value.visible_to?.length ? 'EVERYBODY' : chosen.length > 0 ? 'TEAMS' : 'OWNER'
  const put = (teams: string[]) => onChange({ visible_to: [owner, ...teams] })
  return (
    <div>
      <Choice
        id="visible-to"
        label={t('fields.who_sees_it')}
        value={sight}
        options={[
          ['EVERYBODY', t('fields.everybody')],
          ['OWNER', t('fields.only_team', { team: owner })],
          ...(others.length > 0 ? [['TEAMS', t('fields.team_and_others', { team: owner })] as const] : []),
        ]}
        onChange={(next) =>
          next === 'EVERYBODY' ? onChange({ visible_to: [] }) : put(next === 'TEAMS' ? others.slice(0, 1) : [])
        }
      />
      {sight === 'TEAMS' &&
        others.map((team) => (
          <Form.Check
            key={team}
            inline
            id={`visible-to-${team}`}
            label={team}
            checked={chosen.includes(team)}
            onChange={(event) => put(event.target.checked ? [...chosen, team] : chosen.filter((each) => each !== team))}
          />
        ))}
      {sight !== 'EVERYBODY' && <p className="small quiet mb-0">{help}</p>}
    </div>
  )
}
