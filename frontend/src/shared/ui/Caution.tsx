import { HStack, Span } from '@chakra-ui/react'
import { useState } from 'react'
import { useRules } from '@/shared/api/queries'
import { Button } from './Button'

const KEY = 'sandboa.cautions-read'

function read(): string[] {
  return JSON.parse(localStorage.getItem(KEY) ?? '[]') as string[]
}

/** What can hurt someone at this moment; dismissed once, it stays away on this device. */
export function Caution({ moment }: { moment: string }) {
  const [dismissed, setDismissed] = useState(() => read().includes(moment))
  const caution = useRules().data?.cautions.find((c) => c.moment === moment)
  if (dismissed || !caution) return null
  return (
    // A note and no landmark: two of them on one page are no two places to go to.
    <HStack
      role="note"
      aria-label="Caution"
      gap={3}
      border="2px solid"
      borderColor="yolkInk"
      borderRadius="small"
      ps={4}
      pe={2}
      py={2}
      mb={5}
      fontSize="small"
    >
      <Span flex="1">{caution.text}</Span>
      <Button
        type="button"
        variant="bare"
        size="small"
        onClick={() => {
          localStorage.setItem(KEY, JSON.stringify([...read(), moment]))
          setDismissed(true)
        }}
      >
        I know
      </Button>
    </HStack>
  )
}
