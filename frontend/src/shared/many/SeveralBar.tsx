import { Flex, Grid, Strong } from '@chakra-ui/react'
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
      <Grid
        width="100%"
        templateColumns={{ base: '1fr auto', md: 'auto 1fr auto' }}
        columnGap={4}
        rowGap={1}
        alignItems="center"
      >
        <Tick
          label={<Strong>{chosen.length} chosen</Strong>}
          checked={chosen.length > 0 && chosen.length === shown}
          note={`all ${shown} shown`}
          onChange={several.toggleAll}
        />
        {/* On a phone in one line below, which a thumb draws along: rows stay in sight. */}
        <Flex
          gap={2}
          order={{ base: 1, md: 0 }}
          gridColumn={{ base: '1 / -1', md: 'auto' }}
          minWidth={0}
          overflowX="auto"
          py={1}
        >
          {children}
        </Flex>
        <Button variant="bare" onClick={several.stop}>
          Done
        </Button>
      </Grid>
    </ActBar>
  )
}
