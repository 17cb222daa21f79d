import { DefinitionList } from '../documents/DefinitionList'
import { t } from '../../messages'

/** The lists of recipients, and the rules that mail each. */
export function RecipientLists() {
  return (
    <DefinitionList
      kind="recipient-list"
      at="/recipient-lists"
      heading={t('recipients.lists')}
      what={t('loading.the_lists')}
      fresh={t('recipients.new_list')}
      nothing={t('recipients.no_lists_yet')}
    />
  )
}
