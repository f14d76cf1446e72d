import { Flex, Text } from '@chakra-ui/react'
import { under } from '@/shared/api/under'
import { zone } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { useTemperatureUnit } from '@/shared/units'

/** Everything that was recorded of a clutch on paper: for a vet, or for a friend. */
export function StoryLinks({ code }: { code: string }) {
  const unit = useTemperatureUnit()
  const read = `zone=${encodeURIComponent(zone())}&unit=${unit}`
  return (
    <Flex gap={3} wrap="wrap" mt={5} align="center" _print={{ display: 'none' }}>
      <Text>Its whole story as PDF, for a vet or a friend:</Text>
      {['A4', 'Letter'].map((paper) => (
        <Button key={paper} asChild>
          <a
            href={under(`/api/clutches/${code}/story.pdf?${read}&paper=${paper}`)}
            aria-label={`The story of ${code} as PDF on ${paper}`}
          >
            {paper}
          </a>
        </Button>
      ))}
    </Flex>
  )
}
