import { chakra, Span } from '@chakra-ui/react'
import { day } from '@/shared/dates'
import type { LostEgg } from './queries'
import { stayWords } from './words'

/** Where a lost egg lay until its death: one line, or one for each change. */
export function WhereItLay({ lost }: { lost: LostEgg }) {
  const { lain } = lost
  return (
    <div>
      <chakra.h3 fontWeight="bold">Where it lay</chakra.h3>
      <ul aria-label={`Where egg ${lost.egg.number} lay`}>
        {lain.map((stay, i) => (
          <chakra.li key={stay.from_at} lineHeight={1.35} py={0.5}>
            {lain.length > 1 && (
              <Span fontWeight="semibold">
                {i === 0 ? 'At first' : `From day ${stay.from_day}, ${day(stay.from_at)}`}:{' '}
              </Span>
            )}
            {stayWords(stay)}
          </chakra.li>
        ))}
      </ul>
    </div>
  )
}
