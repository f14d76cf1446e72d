import { Box, chakra, Grid, HStack, Span, Stack, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { EggDrawing } from '@/eggs/EggDrawing'
import { OpenedEgg } from '@/eggs/OpenedEgg'
import type { Schemas } from '@/shared/api/client'
import { asLook } from '@/shared/api/eggLook'
import { Photos } from '@/shared/photos/Photos'
import { Button } from '@/shared/ui/Button'
import { Heading } from '@/shared/ui/page'
import { CauseList } from './CauseList'
import { OpeningForm } from './OpeningForm'
import type { LostEgg } from './queries'
import { WhereItLay } from './WhereItLay'
import { bothWords, windowWords } from './words'

/** One failed egg: how it looked, when it died, what was found, and why. */
export function LostEggSection({
  lost,
  clutch,
}: {
  lost: LostEgg
  clutch: Schemas['ClutchLossesResponse']
}) {
  const [writing, setWriting] = useState(false)
  const { egg, opening } = lost
  return (
    <section aria-labelledby={`egg-${egg.number}`}>
      <Heading id={`egg-${egg.number}`}>
        Egg {egg.number}: {lost.fate}
        {lost.stage && `, ${lost.stage}`}
      </Heading>
      <Grid
        templateColumns={{ base: '1fr', lg: '18.75rem minmax(0, 1fr)' }}
        columnGap={12}
        rowGap={6}
        alignItems="start"
      >
        <Stack gap={4}>
          <HStack gap={5}>
            <EggDrawing egg={asLook(egg)} size={120} day={clutch.day} />
            {opening?.opened && (
              <OpenedEgg
                found={opening.findings}
                size={150}
                label={`Opened: ${opening.words.join(', ') || 'nothing noted'}`}
              />
            )}
          </HStack>
          <DeathBar lost={lost} />
          <WhereItLay lost={lost} />
          <Found lost={lost} />
          <Box>
            <Button type="button" aria-expanded={writing} onClick={() => setWriting(!writing)}>
              {opening ? `Edit what was found in egg ${egg.number}` : `Egg ${egg.number} opened`}
            </Button>
          </Box>
          <Photos photos={lost.photos} of={{ owner: clutch.id, egg: egg.number }} />
        </Stack>
        <div>
          {writing && (
            <OpeningForm
              code={clutch.code}
              number={egg.number}
              held={opening}
              onDone={() => setWriting(false)}
            />
          )}
          {lost.together.length > 1 && (
            <Text mb={3} fontSize="lead" lineHeight={1.35}>
              {bothWords(lost.together)}
            </Text>
          )}
          <CauseList causes={lost.causes} number={egg.number} />
          {lost.missing.length > 0 && (
            <Box mt={5}>
              <chakra.h3 fontWeight="bold">What is missing</chakra.h3>
              <chakra.ul color="soft">
                {lost.missing.map((gap) => (
                  <li key={gap}>{gap}</li>
                ))}
              </chakra.ul>
            </Box>
          )}
        </div>
      </Grid>
    </section>
  )
}

/** From lay to pip, with the stretch in which it died. */
function DeathBar({ lost }: { lost: LostEgg }) {
  if (lost.died_from_share === null || lost.died_by_share === null) return null
  const from = Math.min(lost.died_from_share, 1.1) / 1.1
  const by = Math.min(lost.died_by_share, 1.1) / 1.1
  return (
    <div>
      <Box
        position="relative"
        height="1rem"
        bg="faint"
        borderRadius="small"
        aria-hidden="true"
        mb={1}
      >
        <Box
          position="absolute"
          insetY={0}
          bg="vessel"
          borderRadius="small"
          style={{ left: `${100 * from}%`, width: `${Math.max(2, 100 * (by - from))}%` }}
        />
        <Box
          position="absolute"
          insetY="-3px"
          width="2px"
          bg="ink"
          style={{ left: `${100 / 1.1}%` }}
        />
      </Box>
      <Text lineHeight={1.3}>
        {windowWords(lost)}:{' '}
        <Span color="soft">{lost.window_words}. What happened after it explains nothing.</Span>
      </Text>
    </div>
  )
}

function Found({ lost }: { lost: LostEgg }) {
  const { opening } = lost
  if (!opening) return <Text color="yolkInk">Not opened yet, as far as is recorded.</Text>
  if (!opening.opened) return <p>Not opened, and that is an answer. {opening.note}</p>
  return (
    <p>
      {opening.words.length ? `Found: ${opening.words.join(', ')}.` : 'Opened, nothing noted.'}{' '}
      {opening.note}
    </p>
  )
}
