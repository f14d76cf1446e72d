import { Text } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'

type Clutch = Schemas['ClutchResponse']

/** Which eggs have pipped and when, and the way to where it is recorded. */
export function Pips({ clutch }: { clutch: Clutch }) {
  const seen = clutch.eggs.filter((egg) => egg.pipped_at || egg.emerged_at)
  return (
    <>
      {seen.length > 0 && (
        <Text mb={3}>
          {seen
            .map((egg) =>
              egg.emerged_at
                ? `Egg ${egg.number} out ${dayAndTime(egg.emerged_at)}`
                : `Egg ${egg.number} pipped ${dayAndTime(egg.pipped_at ?? '')}`,
            )
            .join(', ')}
          .
        </Text>
      )}
      {clutch.finished_at && (
        <Text mb={3}>Closed {dayAndTime(clutch.finished_at)}: what it took is learned from.</Text>
      )}
      <Button asChild>
        <Link to={`/hatch/${clutch.code}`}>
          {clutch.finished_at ? 'Hatchlings and fates' : 'Hatch watch of this clutch'}
        </Link>
      </Button>
    </>
  )
}
