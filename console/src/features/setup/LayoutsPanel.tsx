import { DefinitionList } from '../documents/DefinitionList'
import { t } from '../../messages'

/** The layouts that rules share, and the rules that use each. */
export function LayoutsPanel() {
  return (
    <DefinitionList
      kind="layout"
      at="/layouts"
      heading={t('setup.layouts')}
      what={t('loading.the_layouts')}
      fresh={t('layouts.new_layout')}
      nothing={t('setup.no_layouts_yet')}
    />
  )
}
