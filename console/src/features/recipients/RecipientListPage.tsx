import { useQuery } from '@tanstack/react-query'
import type { Definitions, Written } from '../../api/types'
import { RuleLinks } from '../../shared/RuleLinks'
import { definitionsOf } from '../documents/api'
import { DefinitionForm } from '../documents/DefinitionForm'
import { SharedBelongingFields } from '../fields/Belonging'
import { PeopleField } from '../fields/PeopleField'
import { t } from '../../messages'

type RecipientList = Written<Definitions['recipient-list']>

const start: RecipientList = { kind: 'recipient-list', name: '', recipients: [] }

/** Recipients that several rules mail under one name. */
export function RecipientListPage() {
  return (
    <DefinitionForm<RecipientList>
      start={start}
      fresh={t('recipients.new_list')}
      at={(name) => `/recipient-lists/${name}`}
      saysEmpty={['recipients']}
      fields={({ value, put }) => (
        <div className="fields mt-2">
          <PeopleField
            id="recipients"
            label={t('shared.recipients')}
            value={value.recipients}
            withLists={false}
            onChange={(recipients) => put({ recipients })}
          />
          <SharedBelongingFields value={value} onChange={put} />
        </div>
      )}
      effect={(value) => <UsedBy name={value.name} />}
    />
  )
}

function UsedBy({ name }: { name: string }) {
  const saved = useQuery(definitionsOf('recipient-list'))
  return (
    <section className="sheet">
      <h2>{t('shared.used_by')}</h2>
      <p className="mb-0">
        <RuleLinks rules={saved.data?.find((each) => each.name === name)?.rules ?? []} />
      </p>
      <p className="small quiet mt-2 mb-0">
        {t('recipients.list_help', { name: name || t('recipients.name_of_list') })}
      </p>
    </section>
  )
}
