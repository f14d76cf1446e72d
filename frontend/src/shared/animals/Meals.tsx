import { Span, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { DatedLine } from './DatedLine'

/** Meals shown; the log has every one. */
const SHOWN = 8

/** The latest meals offered, taken or refused. */
export function Meals({ meals }: { meals: Schemas['MealResponse'][] }) {
  if (meals.length === 0) return <Text color="soft">None recorded.</Text>
  return (
    <ul>
      {[...meals]
        .reverse()
        .slice(0, SHOWN)
        .map((meal) => (
          <DatedLine key={meal.at} at={dayAndTime(meal.at)}>
            <Span fontWeight={meal.taken ? 'medium' : 'bold'}>
              {meal.taken ? 'taken' : 'refused'}
              {meal.prey && `, ${meal.prey}`}
              {meal.mass_g !== null && `, ${meal.mass_g} g`}
            </Span>
          </DatedLine>
        ))}
    </ul>
  )
}
