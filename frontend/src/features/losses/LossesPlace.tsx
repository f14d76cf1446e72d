import { Box, chakra, Span, Stack, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import type { Schemas } from '@/shared/api/client'
import { asSmallLook } from '@/shared/api/eggLook'
import { Years } from '@/shared/breeding/Years'
import { fullDay } from '@/shared/dates'
import { Narrow } from '@/shared/many/Narrow'
import { useNarrowing } from '@/shared/many/useNarrowing'
import { WindowedList } from '@/shared/many/WindowedList'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { NARROWING } from './narrowing'
import { useLosses } from './queries'
import { countWords, leadWords } from './words'

/** The losses of a season: which eggs, and what most likely took each. */
export function Component() {
  const [year, setYear] = useState<number | null>(null)
  const query = useLosses(year)
  const losses = query.data
  if (!losses) return <Waiting problem={query.error?.message} />
  return (
    <Stack gap={9}>
      <div>
        <Title>Losses</Title>
        <Text color="soft" mt={2} maxWidth="38em">
          Open every egg that failed, write down what you see, and change one thing next season.
          Slugs are no losses: nothing was there to lose.
        </Text>
      </div>
      {losses.years.length > 1 && (
        <Years years={losses.years} chosen={losses.year} onChoose={setYear} />
      )}
      {losses.worked_out < losses.laid && (
        <Text role="status" fontWeight="semibold">
          Being worked out: {losses.worked_out} of {losses.laid} clutches so far, the latest first.
        </Text>
      )}
      {losses.clutches.length === 0 && losses.worked_out === losses.laid && (
        <p>
          Nothing to look into yet. When you say at Hatch watch what became of an egg that failed,
          it stands here.
        </p>
      )}
      <Lines lines={losses.clutches} />
    </Stack>
  )
}

/** How high a clutch is by itself, px. */
const CLUTCH_PX = 140

function Lines({ lines }: { lines: Schemas['LossLineResponse'][] }) {
  const narrowing = useNarrowing(lines, NARROWING)
  if (lines.length === 0) return null
  return (
    <Stack gap={6}>
      <Narrow narrowing={narrowing} what="clutches" of={`${lines.length} clutches with losses`} />
      <WindowedList
        items={narrowing.items}
        keyOf={({ code }) => code}
        height={CLUTCH_PX}
        row={(line) => (
          <Box pb={9}>
            <OfClutch line={line} />
          </Box>
        )}
      />
    </Stack>
  )
}

function OfClutch({ line }: { line: Schemas['LossLineResponse'] }) {
  return (
    <section aria-labelledby={`losses-${line.code}`}>
      <Heading id={`losses-${line.code}`}>
        <Link to={`/losses/${line.code}`}>
          <Span textDecoration="underline" textUnderlineOffset="3px">
            {line.code}
          </Span>
        </Link>{' '}
        of {line.dam}
        {line.sire && ` and ${line.sire}`}
        <Span color="soft" fontWeight="medium" fontSize="fine">
          {' '}
          {line.count}, laid {fullDay(line.laid_at)}
        </Span>
      </Heading>
      <Text mt="-6px" mb={2}>
        {countWords(line)}.
      </Text>
      <ul>
        {line.lost.map(({ egg, fate, opened, cause, share }) => (
          <chakra.li key={egg.number} borderTop="1px solid" borderColor="line">
            <Link to={`/losses/${line.code}#egg-${egg.number}`}>
              <Span
                display="grid"
                gridTemplateColumns={{ base: '3.5rem 1fr', md: '3.5rem 15rem 1fr auto' }}
                columnGap={4}
                alignItems="center"
                minHeight="3.625rem"
                py={2}
                _hover={{ bg: 'faint' }}
              >
                <EggDrawing egg={asSmallLook(egg)} size={50} decorative />
                <span>
                  <strong>Egg {egg.number}</strong> {fate}
                </span>
                <Span gridColumn={{ base: 2, md: 'auto' }}>{leadWords(cause, share)}</Span>
                <Span
                  gridColumn={{ base: 2, md: 'auto' }}
                  color={opened === null ? 'yolkInk' : 'soft'}
                  fontSize="small"
                >
                  {opened === null ? 'open it and say' : opened ? 'opened' : 'not opened'}
                </Span>
              </Span>
            </Link>
          </chakra.li>
        ))}
      </ul>
    </section>
  )
}
