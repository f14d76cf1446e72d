import { Box, chakra, Flex, Span, Text } from '@chakra-ui/react'
import { Link } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { day } from '@/shared/dates'
import { takeMoment } from '@/shared/moment/moment'
import { When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { Notice } from '@/shared/ui/page'

type Dam = Schemas['AfterLayingResponse']
type Item = Schemas['CareItemResponse']

/** A dam's checklist after laying, her flags, and the way back to weight. */
export function CareList({ dam }: { dam: Dam }) {
  const tick = useAct(
    (task: Item['task']) =>
      answer(
        api.POST('/api/animals/{animal}/aftercare', {
          params: { path: { animal: dam.dam } },
          body: { task, at: takeMoment() },
        }),
      ),
    (act) => act,
  )
  return (
    <div>
      {dam.flags.map((flag) => (
        <Box key={flag} mb={3}>
          <Notice urgent label="Look at her">
            {flag}
          </Notice>
        </Box>
      ))}
      <ul>
        {dam.items
          .filter((item) => !item.done_at)
          .map((item) => (
            <chakra.li
              key={item.task}
              display="flex"
              alignItems="center"
              flexWrap={item.task === 'feel again' ? 'wrap' : 'nowrap'}
              gap={3}
              minHeight="3.25rem"
              py={1}
              borderBottom="1px solid"
              borderColor="line"
            >
              <Span flex={item.task === 'feel again' ? '1 1 15rem' : '1'}>
                {item.text}
                <Span color="soft" fontSize="small" display="block">
                  {item.due ? `due now, by ${day(item.by)}` : `from ${day(item.start)}`}
                </Span>
              </Span>
              {item.ticked_by_hand ? (
                <Flex gap={2} wrap="wrap" justify="flex-end">
                  <Button type="button" size="small" onClick={() => tick.mutate(item.task)}>
                    {item.task === 'feel again' ? 'She is hollow' : 'Done'}
                  </Button>
                  {item.task === 'feel again' && (
                    <Button type="button" size="small" onClick={() => tick.mutate('seen by a vet')}>
                      A vet saw her
                    </Button>
                  )}
                </Flex>
              ) : (
                <Button asChild size="small">
                  <Link to={`/animals/${dam.dam}`}>
                    {item.task === 'weigh' ? 'Record weight' : 'Record meal'}
                  </Link>
                </Button>
              )}
            </chakra.li>
          ))}
      </ul>
      <When label="Ticked" />
      <Done items={dam.items} />
      <BackToWeight dam={dam} />
      {!dam.items.some((item) => item.task === 'feel again' && !item.done_at) && (
        <Button
          type="button"
          variant="bare"
          size="small"
          ms={-3}
          onClick={() => tick.mutate('aftercare over')}
        >
          Her aftercare is over
        </Button>
      )}
    </div>
  )
}

/** What has been done already, in one line: it is not in the way. */
function Done({ items }: { items: Item[] }) {
  const done = items.flatMap((item) => (item.done_at ? [`${item.task} ${day(item.done_at)}`] : []))
  if (done.length === 0) return null
  return (
    <Text color="soft" mt={2} fontSize="small">
      Done: {done.join(', ')}.
    </Text>
  )
}

/** "1,420 g of 1,850 g; back about 12 Sep (30 Aug to 8 Oct)". */
export function BackToWeight({ dam }: { dam: Dam }) {
  const { recovery } = dam
  const target = `${dam.target_g.toFixed(0)} g`
  const why = dam.before_g === null ? 'your minimum' : 'her weight before pairing'
  if (!recovery) {
    return (
      <Text mt={3} color="soft">
        Target {target} ({why}). No weight since laying yet.
      </Text>
    )
  }
  return (
    <Text mt={3}>
      <strong>{recovery.latest_g.toFixed(0)} g</strong> of {target} ({why}).{' '}
      {recovery.reached
        ? 'Back to weight.'
        : recovery.expected_at
          ? expected(recovery)
          : recovery.gain_g_per_day === null
            ? 'A second weight, a week after the first, gives the date.'
            : 'Not gaining: no date can be told.'}
    </Text>
  )
}

function expected(recovery: Schemas['RecoveryResponse']): string {
  const rate = recovery.gain_g_per_day?.toFixed(0)
  const early = recovery.early_at ? day(recovery.early_at) : ''
  const late = recovery.late_at ? day(recovery.late_at) : 'much later'
  return `Back about ${day(recovery.expected_at as string)} (${early} to ${late}), gaining ${rate} g a day.`
}
