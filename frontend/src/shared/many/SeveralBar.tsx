import { Flex, Strong } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { ActBar } from '@/shared/ui/ActBar'
import { Button } from '@/shared/ui/Button'
import { Tick } from '@/shared/ui/Tick'
import type { Several } from './useSeveral'

/** What can be done with the rows that are ticked, under the thumb. */
export function SeveralBar<Key>({
  several,
  shown,
  children,
}: {
  several: Several<Key>
  /** How many rows the list shows. */
  shown: number
  children: ReactNode
}) {
  if (!several.choosing) return null
  const { chosen } = several
  return (
    <ActBar>
      <Flex wrap="wrap" columnGap={4} rowGap={2} align="center" width="100%">
        <Tick
          label={<Strong>{chosen.length} chosen</Strong>}
          checked={chosen.length > 0 && chosen.length === shown}
          note={`all ${shown} shown`}
          onChange={several.toggleAll}
        />
        <Flex wrap="wrap" gap={3} flex="1">
          {children}
        </Flex>
        <Button variant="bare" onClick={several.stop}>
          Done
        </Button>
      </Flex>
    </ActBar>
  )
}
