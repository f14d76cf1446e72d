import { chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import type { Schemas } from '@/shared/api/client'
import { asSmallLook } from '@/shared/api/eggLook'
import { Years } from '@/shared/breeding/Years'
import { fullDay } from '@/shared/dates'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { useLosses } from './queries'
import { countWords, leadWords } from './words'

/** The losses of a season: which eggs, and what most likely took each. */
export function Component() {
  const [year, setYear] = useState<number | null>(null)
  const query = useLosses(year)
  const losses = query.data
  if (!losses) return <Waiting problem={query.error?.message} />
  return (
    <chakra.div display="flex" flexDirection="column" gap={9}>
      <div>
        <Title>Losses</Title>
        <chakra.p color="soft" mt={2} maxWidth="38em">
          Open every egg that failed, write down what you see, and change one thing next season.
          Slugs are no losses: nothing was there to lose.
        </chakra.p>
      </div>
      {losses.years.length > 1 && (
        <Years years={losses.years} chosen={losses.year} onChoose={setYear} />
      )}
      {losses.clutches.length === 0 && (
        <p>
          Nothing to look into yet. When you say at Hatch watch what became of an egg that failed,
          it stands here.
        </p>
      )}
      {losses.clutches.map((line) => (
        <OfClutch key={line.code} line={line} />
      ))}
    </chakra.div>
  )
}

function OfClutch({ line }: { line: Schemas['LossLineResponse'] }) {
  return (
    <section aria-labelledby={`losses-${line.code}`}>
      <Heading id={`losses-${line.code}`}>
        <Link to={`/losses/${line.code}`}>
          <chakra.span textDecoration="underline" textUnderlineOffset="3px">
            {line.code}
          </chakra.span>
        </Link>{' '}
        of {line.dam}
        {line.sire && ` and ${line.sire}`}
        <chakra.span color="soft" fontWeight={500} fontSize="0.85em">
          {' '}
          {line.count}, laid {fullDay(line.laid_at)}
        </chakra.span>
      </Heading>
      <chakra.p mt="-6px" mb={2}>
        {countWords(line)}.
      </chakra.p>
      <chakra.ul listStyleType="none">
        {line.lost.map(({ egg, fate, opened, cause, share }) => (
          <chakra.li key={egg.number} borderTop="1px solid" borderColor="line">
            <Link to={`/losses/${line.code}#egg-${egg.number}`}>
              <chakra.span
                display="grid"
                gridTemplateColumns={{ base: '56px 1fr', md: '56px 240px 1fr auto' }}
                columnGap={4}
                alignItems="center"
                minHeight="58px"
                py={2}
                _hover={{ bg: 'faint' }}
              >
                <EggDrawing egg={asSmallLook(egg)} size={50} decorative />
                <span>
                  <strong>Egg {egg.number}</strong> {fate}
                </span>
                <chakra.span gridColumn={{ base: 2, md: 'auto' }}>
                  {leadWords(cause, share)}
                </chakra.span>
                <chakra.span
                  gridColumn={{ base: 2, md: 'auto' }}
                  color={opened === null ? 'yolkInk' : 'soft'}
                  fontSize="0.92em"
                >
                  {opened === null ? 'open it and say' : opened ? 'opened' : 'not opened'}
                </chakra.span>
              </chakra.span>
            </Link>
          </chakra.li>
        ))}
      </chakra.ul>
    </section>
  )
}
