import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { timeWords } from '../../shared/words'
import { recipientLanguages, setRecipientLanguage } from './api'

const languages: [string, string][] = [
  ['en', 'English'],
  ['de', 'Deutsch'],
  ['nb', 'Norsk bokmål'],
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
      <h2>Languages of recipients</h2>
      <p className="quiet">Messages are in the language of the rule, except for these recipients.</p>
      <Loaded query={all} what="The languages">
        {(list) =>
          list.length > 0 && (
            <Scroll label="Languages of recipients">
              <Table>
                <tbody>
                  {list.map((each) => (
                    <tr key={each.address}>
                      <td>{each.address}</td>
                      <td>{words(each.language)}</td>
                      <td className="quiet">
                        set by {each.by}, {timeWords(each.at)}
                      </td>
                      <td>
                        <Button
                          variant="plain"
                          size="sm"
                          disabled={set.isPending}
                          onClick={() => set.mutate({ of: each.address, to: null })}
                        >
                          Use the rule's language<span className="visually-hidden">: {each.address}</span>
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
          <Form.Label>Address</Form.Label>
          <Form.Control type="email" required value={address} onChange={(event) => setAddress(event.target.value)} />
        </Form.Group>
        <Form.Group controlId="reader-language">
          <Form.Label>Language</Form.Label>
          <Form.Select value={language} onChange={(event) => setLanguage(event.target.value)}>
            {languages.map(([code, name]) => (
              <option key={code} value={code}>
                {name}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Button type="submit" disabled={set.isPending}>
          Set
        </Button>
      </Form>
      <div role="status">{set.isError && <p className="callout bad mb-0">{set.error.message}</p>}</div>
    </section>
  )
}
