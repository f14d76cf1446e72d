import { Box, Flex, Span, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { LeaveForm } from '@/shared/animals/LeaveForm'
import { TubForm } from '@/shared/animals/TubForm'
import type { Schemas } from '@/shared/api/client'
import { fullDay } from '@/shared/dates'
import { traitsInWords } from '@/shared/traits'
import { Button } from '@/shared/ui/Button'
import { Title } from '@/shared/ui/page'

type Page = Schemas['AnimalPageResponse']

/** Who an animal is, where it comes from and lives, and that it left; what is done about that. */
export function AnimalHead({ page }: { page: Page }) {
  const { animal } = page
  const [asking, setAsking] = useState<'tub' | 'left' | null>(null)
  const ask = (what: 'tub' | 'left') => () => setAsking(asking === what ? null : what)
  const done = () => setAsking(null)
  return (
    <div>
      <Flex wrap="wrap" align="flex-end" columnGap={6} rowGap={3}>
        <div>
          <Title>{animal.name}</Title>
          <Text color="soft" mt={1}>
            {[
              animal.role,
              animal.code,
              animal.retired && 'retired',
              page.tub && `tub ${page.tub.name}`,
              traitsInWords(animal),
              page.parents && `of ${page.parents}`,
            ]
              .filter(Boolean)
              .join(', ')}
          </Text>
          {page.traits_text && <Text>{page.traits_text}</Text>}
          {page.hatched_here && <HatchedHere from={page.hatched_here} />}
          {animal.departure && <Left departure={animal.departure} />}
        </div>
        <Flex marginStart={{ md: 'auto' }} gap={2} wrap="wrap">
          {animal.role === 'dam' && !animal.departure && (
            <Button asChild>
              <Link to={`/lay-day?dam=${encodeURIComponent(animal.name)}`}>She is laying</Link>
            </Button>
          )}
          <Button asChild>
            <Link to={`/animals/${animal.id}/correct`}>Edit</Link>
          </Button>
          {!animal.departure && (
            <>
              <Button type="button" aria-expanded={asking === 'tub'} onClick={ask('tub')}>
                Its tub
              </Button>
              <Button type="button" aria-expanded={asking === 'left'} onClick={ask('left')}>
                It left
              </Button>
            </>
          )}
        </Flex>
      </Flex>
      {asking === 'tub' && (
        <Box mt={4}>
          <TubForm of={{ animal: animal.id }} onDone={done} />
        </Box>
      )}
      {asking === 'left' && (
        <Box mt={4}>
          <LeaveForm of={{ animal: animal.id }} onDone={done} />
        </Box>
      )}
    </div>
  )
}

function Left({ departure }: { departure: Schemas['DepartureResponse'] }) {
  const how = departure.how === 'died' ? 'Died' : `Left the house, ${departure.how},`
  return (
    <Text fontWeight="semibold">
      {how} {fullDay(departure.at)}
      {departure.note && `: ${departure.note}`}
    </Text>
  )
}

function HatchedHere({ from }: { from: Schemas['HatchedHereResponse'] }) {
  return (
    <Text>
      Hatched here:{' '}
      <Link to={`/clutches/${from.clutch}/eggs/${from.egg}`}>
        <Span textDecoration="underline" textUnderlineOffset="3px">
          egg {from.clutch}/{from.egg}
        </Span>
      </Link>
      , held back {fullDay(from.held_at)}. As a{' '}
      <Link to={`/hatchlings/${from.hatchling}`}>
        <Span textDecoration="underline" textUnderlineOffset="3px">
          hatchling
        </Span>
      </Link>
      .
    </Text>
  )
}
