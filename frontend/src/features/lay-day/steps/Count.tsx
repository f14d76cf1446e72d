import { chakra } from '@chakra-ui/react'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { Choices } from '@/shared/ui/Choices'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../StepPlace'
import { countOf, type Egg } from '../steps'

const OFFERED = 12
const MOST = 20

/** Total laid, then how many of them are slugs: the "7-2" of the card. */
export function Count({ day, step, back, change, next }: StepProps) {
  const client = useQueryClient()
  const { eggs } = day.state
  const [more, setMore] = useState(eggs.length > OFFERED)
  const [refusal, setRefusal] = useState('')
  const slugs = eggs.filter((egg) => egg.slug).length

  const count = async (laid: number, slugs: number) => {
    setRefusal('')
    try {
      const told: Schemas['SuggestionTold'] = await client.fetchQuery({
        queryKey: ['suggestion', `${laid}-${slugs}`],
        queryFn: () =>
          answer(
            api.GET('/api/lay-day/suggestion', {
              params: { query: { count: `${laid}-${slugs}` } },
            }),
          ),
        retry: false,
      })
      change({ eggs: told.eggs.map((place, i) => kept(eggs[i], place, laid === eggs.length)) })
    } catch (problem) {
      setRefusal((problem as Problem).detail)
    }
  }
  const numbers = (from: number, to: number) =>
    Array.from({ length: to - from + 1 }, (_, i) => ({
      value: String(from + i),
      label: <chakra.span fontSize="1.3em">{from + i}</chakra.span>,
    }))
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      {...(eggs.length > 0 && { nextLabel: `${countOf(eggs)}, next` })}
      onSubmit={(event) => {
        event.preventDefault()
        next()
      }}
    >
      <Choices
        legend="Eggs in all, slugs included"
        columns={6}
        choices={numbers(1, more ? MOST : OFFERED)}
        value={eggs.length ? String(eggs.length) : null}
        onChoose={(laid) => count(Number(laid), Math.min(slugs, Number(laid)))}
      />
      {!more && (
        <chakra.button
          type="button"
          alignSelf="flex-start"
          minHeight="44px"
          textDecoration="underline"
          color="yolkInk"
          fontWeight={650}
          cursor="pointer"
          onClick={() => setMore(true)}
        >
          More than {OFFERED}
        </chakra.button>
      )}
      {eggs.length > 0 && (
        <Choices
          legend="Slugs among them: small, yellowish, rubbery"
          columns={6}
          choices={numbers(0, eggs.length)}
          value={String(slugs)}
          onChoose={(chosen) => count(eggs.length, Number(chosen))}
        />
      )}
      {refusal && (
        <chakra.p role="alert" color="vessel" fontWeight={650}>
          {refusal}
        </chakra.p>
      )}
      {eggs.length > 0 && (
        <chakra.p color="soft">
          On the card: <chakra.strong color="ink">{countOf(eggs)}</chakra.strong>. Which one is
          which comes by torchlight.
        </chakra.p>
      )}
    </StepFrame>
  )
}

/** A counted egg keeps what was seen of it; its place too, unless the box holds another number. */
function kept(before: Egg | undefined, place: Schemas['EggPlace'], samePlaces: boolean): Egg {
  const fresh: Egg = { ...place, events: [], looked: false }
  if (!before) return fresh
  const where = samePlaces ? { x: before.x, y: before.y } : { x: place.x, y: place.y }
  return { ...before, ...where, slug: place.slug }
}
