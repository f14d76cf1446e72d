import { Grid, Span } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Tick } from '@/shared/ui/Tick'
import type { Several } from './useSeveral'

/** A row with a tick before it while several are chosen. */
export function TickedRow<Key>({
  several,
  id,
  name,
  children,
}: {
  several: Several<Key>
  id: Key
  name: string
  children: ReactNode
}) {
  if (!several.choosing) return children
  return (
    <Grid templateColumns="auto minmax(0, 1fr)" columnGap={3} alignItems="center">
      <Tick
        label={<Span srOnly>Choose {name}</Span>}
        checked={several.chosen.includes(id)}
        onChange={() => several.toggle(id)}
      />
      <div>{children}</div>
    </Grid>
  )
}
