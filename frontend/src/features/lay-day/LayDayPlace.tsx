import { chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct, useChoices, useToday } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { Title, Waiting } from '@/shared/ui/page'
import { dropDraft, heldDraft, keepDraft } from './draft'
import { LayForm } from './LayForm'
import { emptyValues } from './values'

/** Record a clutch. */
export function Component() {
  const choices = useChoices()
  const today = useToday()
  const navigate = useNavigate()
  const [draft, setDraft] = useState(heldDraft)
  const lay = useAct(
    (body: Schemas['LayDayAsked']) => answer(api.POST('/api/clutches', { body })),
    (laid) => laid.act,
    () => {},
  )
  if (!choices.data || !today.data) {
    return <Waiting problem={choices.error?.message ?? today.error?.message} />
  }
  return (
    <>
      <chakra.div display="flex" alignItems="baseline" gap={4} mb={6} flexWrap="wrap">
        <Title>Lay day</Title>
        <chakra.span color="soft">the next code is {choices.data.next_code}</chakra.span>
        {draft && (
          <Button
            variant="bare"
            size="small"
            onClick={() => {
              dropDraft()
              setDraft(null)
            }}
          >
            Your draft is back. Start afresh
          </Button>
        )}
      </chakra.div>
      <LayForm
        key={draft ? 'draft' : 'fresh'}
        start={draft ?? emptyValues(new Date(today.data.as_of))}
        choices={choices.data}
        submitLabel="Record the clutch"
        pending={lay.isPending}
        onChange={keepDraft}
        onSubmit={(body, refuse) =>
          lay.mutate(body, {
            onSuccess: ({ code }) => {
              dropDraft()
              navigate(`/clutches/${code}`, { replace: true })
            },
            onError: refuse,
          })
        }
      />
    </>
  )
}
