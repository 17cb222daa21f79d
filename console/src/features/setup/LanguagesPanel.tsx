import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { timeWords } from '../../shared/words'
import { recipientLanguages, setRecipientLanguage } from './api'
import { rich, t } from '../../messages'

const languages: [string, string][] = [
  ['en', t('shared.english')],
  ['de', t('setup.deutsch')],
  ['nb', t('setup.norsk_bokma_l')],
]
const words = (code: string) => languages.find(([each]) => each === code.toLowerCase())?.[1] ?? code

/** Readers who want their mail in a language of their own. */
export function LanguagesPanel() {
  const all = useQuery(recipientLanguages)
  const client = useQueryClient()
  const [address, setAddress] = useState('')
  const [language, setLanguage] = useState('en')
  const set = useMutation({
    mutationFn: ({ of, to }: { of: string; to: string | null }) => setRecipientLanguage(of, to),
    onSuccess: () => {
      setAddress('')
      return client.invalidateQueries({ queryKey: ['languages'] })
    },
  })
  return (
    <section className="sheet">
      <h2>{t('setup.languages_of_recipients')}</h2>
      <p className="quiet">{t('setup.messages_are_in_the_language')}</p>
      <Loaded query={all} what={t('loading.the_languages')}>
        {(list) =>
          list.length > 0 && (
            <Scroll label={t('setup.languages_of_recipients')}>
              <Table>
                <tbody>
                  {list.map((each) => (
                    <tr key={each.address}>
                      <td>{each.address}</td>
                      <td>{words(each.language)}</td>
                      <td className="quiet">{t('setup.set_by', { by: each.by, at: timeWords(each.at) })}</td>
                      <td>
                        <Button
                          variant="plain"
                          size="sm"
                          disabled={set.isPending}
                          onClick={() => set.mutate({ of: each.address, to: null })}
                        >
                          {rich('setup.use_the_rules_language', {
                            span: (inner) => <span className="visually-hidden">{inner}</span>,
                            address: each.address,
                          })}
                        </Button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Table>
            </Scroll>
          )
        }
      </Loaded>
      <Form
        className="d-flex gap-2 flex-wrap align-items-end"
        onSubmit={(event) => {
          event.preventDefault()
          set.mutate({ of: address, to: language })
        }}
      >
        <Form.Group controlId="reader-address">
          <Form.Label>{t('shared.address')}</Form.Label>
          <Form.Control type="email" required value={address} onChange={(event) => setAddress(event.target.value)} />
        </Form.Group>
        <Form.Group controlId="reader-language">
          <Form.Label>{t('shared.language')}</Form.Label>
          <Form.Select value={language} onChange={(event) => setLanguage(event.target.value)}>
            {languages.map(([code, name]) => (
              <option key={code} value={code}>
                {name}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Button type="submit" disabled={set.isPending}>
          {t('setup.set')}
        </Button>
      </Form>
      <div role="status">{set.isError && <p className="callout bad mb-0">{set.error.message}</p>}</div>
    </section>
  )
}
