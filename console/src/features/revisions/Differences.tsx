import { useEffect, useRef } from 'react'
import { yaml } from '@codemirror/lang-yaml'
import { MergeView, unifiedMergeView } from '@codemirror/merge'
import { EditorState } from '@codemirror/state'
import { EditorView, lineNumbers } from '@codemirror/view'
import { t } from '../../messages'

const looks = (label: string) => [
  yaml(),
  lineNumbers(),
  EditorView.lineWrapping,
  EditorState.readOnly.of(true),
  EditorView.contentAttributes.of({ 'aria-label': label }),
]

/** Two texts side by side, or one under the other where there is no room; what is the same is folded. */
export function Differences({
  before,
  after,
  beforeLabel,
  afterLabel,
}: {
  before: string
  after: string
  beforeLabel: string
  afterLabel: string
}) {
  const host = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (!host.current) return
    const folded = { margin: 3, minSize: 6 }
    const narrow = host.current.clientWidth < 640
    const view = narrow
      ? new EditorView({
          parent: host.current,
          doc: after,
          extensions: [
            ...looks(t('revisions.compared_with', { afterLabel, beforeLabel })),
            unifiedMergeView({ original: before, mergeControls: false, collapseUnchanged: folded }),
          ],
        })
      : new MergeView({
          parent: host.current,
          a: { doc: before, extensions: looks(beforeLabel) },
          b: { doc: after, extensions: looks(afterLabel) },
          collapseUnchanged: folded,
          highlightChanges: true,
          gutter: true,
        })
    return () => view.destroy()
  }, [before, after, beforeLabel, afterLabel])
  if (before === after) return <p className="quiet">{t('revisions.no_differences')}</p>
  return (
    <div>
      <div className="d-flex justify-content-between small quiet">
        <span>{beforeLabel}</span>
        <span>{afterLabel}</span>
      </div>
      <div className="differences" ref={host} />
    </div>
  )
}
