import { chakra, Span } from '@chakra-ui/react'
import { fullMoment } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { useMoment } from './moment'

/** On every page, while things are entered for another moment than now. */
export function MomentBar() {
  const [moment, hold] = useMoment()
  if (moment === null) return null
  return (
    <chakra.div
      role="status"
      position="sticky"
      top={0}
      zIndex={5}
      display="flex"
      flexWrap="wrap"
      alignItems="center"
      justifyContent="center"
      columnGap={{ base: 1, md: 4 }}
      fontSize={{ base: 'small', md: '1em' }}
      px={{ base: 2, md: 4 }}
      bg="paper"
      borderBlock="2px solid"
      borderColor="yolk"
      _print={{ display: 'none' }}
    >
      <Span>
        Entered for <strong>{fullMoment(moment)}</strong>
      </Span>
      <Button type="button" variant="bare" size="small" onClick={() => hold(null)}>
        Back to now
      </Button>
    </chakra.div>
  )
}
