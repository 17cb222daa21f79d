import { Button } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { backTest, work, type MemoryPart, type MemorySetting, type RuleDocument, type Variant, type Work } from './api'
import { BackTestProgress } from './BackTestProgress'
import { t } from '../../messages'

const days = 28

const settings: { code: MemorySetting; label: string; of: (memory: MemoryPart) => string | number | undefined }[] = [
  { code: 'OPEN_AFTER', label: t('shared.open_after'), of: (memory) => memory.open_after },
  { code: 'CLEAR_AFTER', label: t('shared.clear_after'), of: (memory) => memory.clear_after },
  { code: 'CONFIRM_AFTER', label: t('editor.confirm_after'), of: (memory) => memory.confirm_after },
  { code: 'REMIND_EVERY', label: t('editor.remind_every'), of: (memory) => memory.remind_every },
]

/** What each setting of the memory would have done over the last weeks: the rule beside itself without the setting. */
export function SettingsEffect({ document }: { document: RuleDocument }) {
  const memory = document.memory ?? {}
  const given = settings.filter(({ of }) => of(memory) !== undefined && of(memory) !== '')
  const start = useMutation({
    mutationFn: () =>
      backTest(days, { thresholds: {}, conditions: [], without: given.map(({ code }) => code) }, document, null),
  })
  // Every personal copy has a memory of its own.
  if (document.copies) return null
  return (
    <div className="mt-3">
      {given.length === 0 ? (
        <p className="small quiet mb-0">{t('editor.no_settings_to_try')}</p>
      ) : (
        <Button size="sm" variant="plain" disabled={start.isPending} onClick={() => start.mutate()}>
          {t('editor.show_what_settings_do')}
        </Button>
      )}
      <div role="status">
        {start.error && <p className="callout bad">{start.error.message}</p>}
        {start.data && <Outcome key={start.data.id} asked={start.data} memory={memory} />}
      </div>
    </div>
  )
}

function Outcome({ asked, memory }: { asked: Work; memory: MemoryPart }) {
  const now = useQuery({ ...work(asked.id), initialData: asked })
  const { state, result } = now.data
  const [asItIs, ...others] = result?.variants ?? []
  if (state !== 'DONE' || !asItIs) return <BackTestProgress now={now.data} onStopped={() => void now.refetch()} />
  return (
    <>
      <ul className="mt-2 mb-1">
        {others.map((other) => (
          <li key={other.without}>
            <Sentence memory={memory} asItIs={asItIs} other={other} />
          </li>
        ))}
      </ul>
      <p className="small quiet mb-0">{t('editor.goal_todays_data')}</p>
    </>
  )
}

function Sentence({ memory, asItIs, other }: { memory: MemoryPart; asItIs: Variant; other: Variant }) {
  const found = settings.find(({ code }) => code === other.without)
  const [setting, value] = [found?.label ?? '', String(found?.of(memory) ?? '')]
  if (asItIs.messages === other.messages && asItIs.updates === other.updates)
    return <>{t('editor.setting_changes_nothing', { setting, value, days })}</>
  return (
    <>
      {t('editor.setting_effect', {
        setting,
        value,
        days,
        messages: asItIs.messages,
        updates: asItIs.updates,
        otherMessages: other.messages,
        otherUpdates: other.updates,
      })}
    </>
  )
}
