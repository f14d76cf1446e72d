import { Span, Stack, Text } from '@chakra-ui/react'
import { useEffect } from 'react'
import { Link, useLocation, useParams } from 'react-router'
import { isNotFound } from '@/shared/api/client'
import { Caution } from '@/shared/ui/Caution'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { LostEggSection } from './LostEggSection'
import { useClutchLosses } from './queries'
import { countWords } from './words'

/** A clutch's failed eggs, one by one: found, likely causes, what would settle it, what to change. */
export function Component() {
  const { code = '' } = useParams()
  const query = useClutchLosses(code)
  const { hash } = useLocation()
  const page = query.data
  const here = page?.code
  useEffect(() => {
    // The egg that was asked for, once it is on the page.
    if (here && hash) document.getElementById(hash.slice(1))?.scrollIntoView()
  }, [here, hash])
  if (!page || isNotFound(query.error)) return <Waiting problem={query.error?.message} />
  return (
    <Stack gap={10}>
      <div>
        <Title>Why eggs of {page.code} were lost</Title>
        <Text color="soft" mt={1}>
          <Link to={`/clutches/${page.code}`}>
            <Span textDecoration="underline" textUnderlineOffset="3px">
              The clutch
            </Span>
          </Link>{' '}
          of {page.dam}
          {page.sire && ` and ${page.sire}`};{' '}
          <Link to={`/hatch/${page.code}`}>
            <Span textDecoration="underline" textUnderlineOffset="3px">
              fates
            </Span>
          </Link>
        </Text>
        <Text fontSize="lead" mt={2}>
          {countWords(page)}.
        </Text>
      </div>
      {page.lost.some((egg) => egg.opening === null) && <Caution moment="opening a lost egg" />}
      {page.lost.length === 0 && <p>No egg of it was lost.</p>}
      {page.lost.map((egg) => (
        <LostEggSection key={egg.egg.number} lost={egg} clutch={page} />
      ))}
      {page.slugs.length > 0 && (
        <section aria-labelledby="slugs">
          <Heading id="slugs">Slugs</Heading>
          <p>
            {page.slugs.length === 1 ? 'Egg' : 'Eggs'}{' '}
            {page.slugs.map((slug) => slug.egg.number).join(', ')}: infertile, and so no loss of
            incubation. {page.slugs[0]?.causes.find((c) => c.cause === 'infertile')?.change}
          </p>
        </section>
      )}
    </Stack>
  )
}
