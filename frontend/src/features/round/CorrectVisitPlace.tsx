import { Text } from '@chakra-ui/react'
import { queryOptions, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { dependentsQuery } from '@/shared/log/dependents'
import { MomentField } from '@/shared/moment/MomentField'
import { boxOf } from '@/shared/offline/visit'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import { Notice, Waiting } from '@/shared/ui/page'
import { type Draft, draftOf, visitOf, wrongWith } from './draft'
import { type Round, type RoundBox, roundThenQuery, useLimits } from './queries'
import { VisitForm } from './VisitForm'

type Recorded = Schemas['RecordedVisitResponse']

const visitQuery = (visit: number) =>
  queryOptions({
    queryKey: ['visit', visit],
    queryFn: () => answer(api.GET('/api/visits/{visit}', { params: { path: { visit } } })),
    // What is typed stands on the version that was opened.
    staleTime: Number.POSITIVE_INFINITY,
  })

/** A recorded visit open again, beside what was known before it, to be put right whole. */
export function Component() {
  const { visit = '' } = useParams()
  const recorded = useQuery({ ...visitQuery(Number(visit)), gcTime: 0 })
  // A second before, for what was known then does not hold this visit itself.
  const before = recorded.data && Date.parse(recorded.data.visit.closed_at) - 1000
  const round = useQuery({
    ...roundThenQuery(new Date(before ?? 0).toISOString()),
    enabled: before !== undefined,
  })
  if (!recorded.data || !round.data) {
    return <Waiting problem={recorded.error?.message ?? round.error?.message} />
  }
  const name = boxOf(recorded.data.visit)
  const box = round.data.boxes.find((b) => b.name === name)
  if (!box) return <Waiting problem={`No eggs lay in box ${name} then.`} />
  return <Correcting recorded={recorded.data} box={box} round={round.data} />
}

function Correcting({ recorded, box, round }: { recorded: Recorded; box: RoundBox; round: Round }) {
  const [draft, setDraft] = useState<Draft>(() => asRecorded(recorded))
  const [refused, setRefused] = useState<string | null>(null)
  const navigate = useNavigate()
  const resting = useQuery(dependentsQuery(recorded.act))
  const rest = recorded.visit.rest_as_before ?? true
  const request = (told: Draft) => ({ ...visitOf(told, new Date()), rest_as_before: rest })
  const correction = useCorrection({
    revision: recorded.revision,
    opened: request(asRecorded(recorded)),
    send: (body: Schemas['VisitRequest'], header) =>
      answer(
        api.PUT('/api/visits/{visit}', {
          params: { path: { visit: recorded.id }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone: () => navigate(-1),
  })
  const wrong = wrongWith(draft, useLimits(box))
  return (
    <>
      <Text color="soft" mb={2}>
        Correct the visit as it was; the earlier entry stays in the log.
      </Text>
      {resting.data && resting.data.length > 0 && (
        <Notice label="Later">{resting.data.map(sentence).join(' ')}</Notice>
      )}
      {refused && (
        <Text role="alert" color="vessel" fontWeight="semibold" mb={2}>
          {sentence(refused)}
        </Text>
      )}
      <VisitForm
        box={box}
        round={round}
        draft={draft}
        onChange={setDraft}
        clock={
          <MomentField
            label="Seen"
            again="As it was"
            moment={draft.closedAt}
            onChange={(moment) =>
              setDraft((held) => ({
                ...held,
                openedAt: moment ?? recorded.visit.opened_at,
                closedAt: moment ?? recorded.visit.closed_at,
              }))
            }
          />
        }
        leave={<Button onClick={() => navigate(-1)}>Leave it</Button>}
        record={
          <Button
            variant="act"
            flex="1"
            minWidth={0}
            maxWidth={{ md: '26.25rem' }}
            disabled={!!wrong || correction.pending}
            onClick={() => correction.save(request(draft), ({ detail }) => setRefused(detail))}
          >
            Record the correction
          </Button>
        }
      />
      <BothVersions
        correction={correction}
        labels={{ closed_at: 'Seen', water_g: 'Water added', mass_g: 'Weight' }}
        say={() => undefined}
      />
    </>
  )
}

/** As a draft of the box, under the key it was recorded with. */
function asRecorded({ visit }: Recorded): Draft {
  return { ...draftOf(visit), key: visit.key }
}
