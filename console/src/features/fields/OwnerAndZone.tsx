import { Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { teams } from '../setup/api'
import { t } from '../../messages'

const zones = (): string[] => Intl.supportedValuesOf('timeZone')

/** The team that a rule or a round-up belongs to. */
export function OwnerField({ value, onChange }: { value: string; onChange: (owner: string) => void }) {
  const owners = useQuery(teams)
  return (
    <Form.Group controlId="owner">
      <Form.Label className="mb-0 small quiet">{t('editor.owner_team')}</Form.Label>
      <Form.Control size="sm" value={value} list="known-teams" onChange={(event) => onChange(event.target.value)} />
      <datalist id="known-teams">
        {(owners.data ?? []).map((team) => (
          <option key={team.name} value={team.name} />
        ))}
      </datalist>
    </Form.Group>
  )
}

/** A zone of the IANA database. */
export function ZoneField({ value, onChange }: { value: string | undefined; onChange: (zone: string) => void }) {
  return (
    <Form.Group controlId="zone">
      <Form.Label className="mb-0 small quiet">{t('shared.time_zone')}</Form.Label>
      <Form.Control
        size="sm"
        value={value ?? ''}
        list="known-zones"
        placeholder={t('editor.utc')}
        onChange={(event) => onChange(event.target.value)}
      />
      <datalist id="known-zones">
        {zones().map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
    </Form.Group>
  )
}
