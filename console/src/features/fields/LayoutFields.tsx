import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { t } from '../../messages'
import { definitionsOf } from '../documents/api'
import { ownLayout, sharedLayout, withLayout, type Layout } from './layout'
import { edited, type Column, type DeliveryPart, type Edits } from './parts'
import { RowsLayout } from './RowsLayout'

type Props = { delivery: DeliveryPart; plain: boolean; columns: Column[]; onChange: (delivery: DeliveryPart) => void }

/** How the rows of the message and its files look: a shared layout, or columns, order and groups of the rule's own. */
export function LayoutFields({ delivery, plain, columns, onChange }: Props) {
  const known = useQuery(definitionsOf('layout'))
  const shared = sharedLayout(delivery)
  const layout = ownLayout(delivery)
  const put = (edits: Edits<Layout>) => onChange(withLayout(delivery, edited(layout, edits, ['extra_columns'])))
  const names = new Map([
    ...(shared ? [[shared, shared] as const] : []),
    ...(known.data ?? []).map(({ name, title }) => [name, title] as const),
  ])
  return (
    <fieldset className="mt-3">
      <legend>{t('editor.layout')}</legend>
      <div className="fields">
        <Choice
          id="shared-layout"
          label={t('editor.columns_order_and_groups')}
          value={shared}
          options={[
            ['', t('editor.layout_own')],
            ...[...names].map(([name, title]): [string, string] => [name, title]),
          ]}
          onChange={(name) => onChange(name ? { ...withLayout(delivery, {}), layout: name } : withLayout(delivery, {}))}
        />
      </div>
      {!shared && <RowsLayout layout={layout} plain={plain} columns={columns} put={put} />}
    </fieldset>
  )
}
