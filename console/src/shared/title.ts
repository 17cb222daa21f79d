import { useEffect } from 'react'
import { t } from '../messages'

/** The page's name in the browser's tab. */
export function useTitle(title: string) {
  useEffect(() => {
    document.title = t('shared.page_title', { title })
  }, [title])
}
