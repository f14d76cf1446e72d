import { Flex } from '@chakra-ui/react'
import { Button } from '@/shared/ui/Button'

/** Which season is looked at; null is all of them. */
export function Years({
  years,
  chosen,
  onChoose,
}: {
  years: (number | null)[]
  chosen: number | null
  onChoose: (year: number | null) => void
}) {
  return (
    <Flex gap={2} wrap="wrap" role="group" aria-label="Season">
      {years.map((year) => (
        <Button
          key={year ?? 'all'}
          type="button"
          size="small"
          aria-pressed={year === chosen}
          variant={year === chosen ? 'act' : 'plain'}
          onClick={() => onChoose(year)}
        >
          {year ?? 'All years'}
        </Button>
      ))}
    </Flex>
  )
}
