import { chakra, Span, Strong, Text } from '@chakra-ui/react'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import type { Problem, Schemas } from '@/shared/api/client'
import { Choices } from '@/shared/ui/Choices'
import { suggestionQuery } from '../queries'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'
import { countOf, type Egg } from '../steps'

const OFFERED = 12
const MOST = 20

/** Total laid, then how many of them are slugs: the "7-2" of the card. */
export function Count({ day, step, back, change, next }: StepProps) {
  const client = useQueryClient()
  const { eggs } = day.state
  const [more, setMore] = useState(eggs.length > OFFERED)
  const [refusal, setRefusal] = useState('')
  const counted = { laid: eggs.length, slugs: eggs.filter((egg) => egg.slug).length }
  // What was tapped last shows at once; an answer to an earlier tap no longer counts.
  const [pending, setPending] = useState<typeof counted | null>(null)
  const latest = useRef(0)
  const { laid, slugs } = pending ?? counted
  const settled = pending === null

  const count = async (laid: number, slugs: number) => {
    latest.current += 1
    const own = latest.current
    setPending({ laid, slugs })
    setRefusal('')
    try {
      const told: Schemas['SuggestionResponse'] = await client.fetchQuery(
        suggestionQuery(`${laid}-${slugs}`),
      )
      if (own !== latest.current) return
      change({ eggs: told.eggs.map((place, i) => kept(eggs[i], place, laid === eggs.length)) })
      setPending(null)
    } catch (problem) {
      if (own !== latest.current) return
      setPending(null)
      setRefusal((problem as Problem).detail)
    }
  }
  const numbers = (from: number, to: number) =>
    Array.from({ length: to - from + 1 }, (_, i) => ({
      value: String(from + i),
      label: <Span fontSize="large">{from + i}</Span>,
    }))
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      {...(laid > 0 && settled && { nextLabel: `${countOf(eggs)}, next` })}
      onSubmit={(event) => {
        event.preventDefault()
        if (laid > 0 && settled) next()
      }}
    >
      <Choices
        legend="Eggs in all, slugs included"
        columns={6}
        choices={numbers(1, more ? MOST : OFFERED)}
        value={laid ? String(laid) : null}
        onChoose={(laid) => count(Number(laid), Math.min(slugs, Number(laid)))}
      />
      {!more && (
        <chakra.button
          type="button"
          alignSelf="flex-start"
          minHeight="thumbSmall"
          textDecoration="underline"
          color="yolkInk"
          fontWeight="semibold"
          cursor="pointer"
          onClick={() => setMore(true)}
        >
          More than {OFFERED}
        </chakra.button>
      )}
      {laid > 0 && (
        <Choices
          legend="Slugs among them: small, yellowish, rubbery"
          columns={6}
          choices={numbers(0, laid)}
          value={String(slugs)}
          onChoose={(chosen) => count(laid, Number(chosen))}
        />
      )}
      {refusal && (
        <Text role="alert" color="vessel" fontWeight="semibold">
          {refusal}
        </Text>
      )}
      {eggs.length > 0 && (
        <Text color="soft">
          On the card: <Strong color="ink">{countOf(eggs)}</Strong>. Which one is which comes by
          torchlight.
        </Text>
      )}
    </StepFrame>
  )
}

/** A counted egg keeps what was seen of it; its place too, unless the box holds another number. */
function kept(before: Egg | undefined, place: Schemas['EggPlace'], samePlaces: boolean): Egg {
  const fresh: Egg = { ...place, shells: place.shells ?? [], events: [], looked: false, box: 0 }
  if (!before) return fresh
  const where = samePlaces ? { x: before.x, y: before.y } : { x: place.x, y: place.y }
  return { ...before, ...where, slug: place.slug }
}
