import { Box, chakra, Flex, Input, Span, Text } from '@chakra-ui/react'
import { type FormEvent, useState } from 'react'
import { EggDrawing } from '@/eggs/EggDrawing'
import { GRADE_WORDS } from '@/eggs/look'
import { Button } from '@/shared/ui/Button'
import type { KeptBox, KeptEgg, KeptSeason, Move } from '../queries'
import { Torch } from '../Torch'
import { AT_BOX, AT_EGG, boxWords, keptLook } from './words'

type Props = { season: KeptSeason; box: KeptBox; onAct: (move: Move) => void }

/** A box: what is seen through its lid, and opened, its eggs and what can be done with them. */
export function KeptBoxCard({ season, box, onAct }: Props) {
  const [chosen, setChosen] = useState<number | null>(null)
  const egg = box.open ? box.eggs.find(({ number }) => number === chosen) : undefined
  const at = (what: string, more: Partial<{ egg: number; water_g: number }> = {}) =>
    onAct({ what, box: box.place, ...more })
  return (
    <Box
      as="section"
      aria-label={box.name}
      border="1.5px solid"
      borderColor={box.open ? 'ink' : 'line'}
      borderRadius="small"
      p={4}
    >
      <Flex justify="space-between" align="baseline" columnGap={3} wrap="wrap" mb={1}>
        <chakra.h2 fontSize="large" fontWeight="bold">
          {box.name}
        </chakra.h2>
        <Span color="soft">
          {season.due.includes(box.place) && !box.open && <strong>due today, </strong>}
          {box.shelf} shelf, eggs on day {box.day}
        </Span>
      </Flex>
      <Text>
        {box.medium}, {box.closing}
        {box.holes && ' and a hole more'}
      </Text>
      <Text fontWeight="semibold">{boxWords(box)}</Text>
      <Text color="soft" fontSize="small" mb={2}>
        {seenWords(box, season.day)}
      </Text>
      <Eggs box={box} chosen={chosen} onChoose={setChosen} />
      {box.open ? (
        <>
          <Flex gap={2} wrap="wrap" mt={3}>
            {AT_BOX.map(([what, label]) => (
              <Button key={what} type="button" size="small" onClick={() => at(what)}>
                {label}
              </Button>
            ))}
          </Flex>
          <Pour box={box} onPour={(water_g) => at('pour', { water_g })} />
          {egg && (
            <AnEgg
              key={egg.number}
              picture={`/api/practice/seasons/${season.id}/boxes/${box.place}/eggs/${egg.number}/torch.webp`}
              egg={egg}
              onDo={(what) => at(what, { egg: egg.number })}
            />
          )}
        </>
      ) : (
        <Button type="button" size="small" mt={3} onClick={() => at('open')}>
          Open {box.name}
        </Button>
      )}
    </Box>
  )
}

function seenWords(box: KeptBox, day: number): string {
  if (box.open) return 'Open now.'
  if (box.seen_day === null) return 'Not opened yet. Through the lid only water is seen.'
  const ago = day - box.seen_day
  return `As it was ${ago === 1 ? 'yesterday' : `${ago} days ago`}, but for the lid.`
}

function Eggs({
  box,
  chosen,
  onChoose,
}: {
  box: KeptBox
  chosen: number | null
  onChoose: (egg: number) => void
}) {
  if (box.eggs.length === 0) return null
  return (
    <chakra.ul display="flex" flexWrap="wrap" gap={2} aria-label={`Eggs of ${box.name}`}>
      {box.eggs.map((egg) => (
        <chakra.li key={egg.number} opacity={egg.isolated ? 0.45 : 1}>
          <chakra.button
            type="button"
            disabled={!box.open}
            aria-pressed={box.open ? chosen === egg.number : undefined}
            aria-label={`Egg ${egg.number} of ${box.name}`}
            onClick={() => onChoose(egg.number)}
            p={1}
            borderRadius="small"
            border="2px solid"
            borderColor={box.open && chosen === egg.number ? 'yolk' : 'transparent'}
            cursor={box.open ? 'pointer' : 'default'}
          >
            <EggDrawing egg={keptLook(egg)} size={64} showNumber />
          </chakra.button>
        </chakra.li>
      ))}
    </chakra.ul>
  )
}

/** Water by the gram: what is missing stands in the field once the box was weighed. */
function Pour({ box, onPour }: { box: KeptBox; onPour: (grams: number) => void }) {
  const short = box.short_g !== null && box.short_g >= 1 ? String(Math.round(box.short_g)) : ''
  const [typed, setTyped] = useState<string | null>(null)
  const grams = Number(typed ?? short)
  const pour = (event: FormEvent) => {
    event.preventDefault()
    onPour(grams)
    setTyped('')
  }
  return (
    <Flex as="form" onSubmit={pour} gap={2} mt={2} align="center">
      <Input
        aria-label={`Water for ${box.name}, g`}
        inputMode="numeric"
        width="6rem"
        value={typed ?? short}
        onChange={(event) => setTyped(event.target.value)}
      />
      <span>g</span>
      <Button type="submit" size="small" disabled={!(grams > 0)}>
        Add water
      </Button>
    </Flex>
  )
}

function AnEgg({
  egg,
  picture,
  onDo,
}: {
  egg: KeptEgg
  picture: string
  onDo: (what: string) => void
}) {
  const shown = AT_EGG.filter(([what]) => what !== 'help' || egg.pipped)
  return (
    <Box mt={3} borderTop="1px solid" borderColor="line" pt={3}>
      <Text fontWeight="semibold">
        Egg {egg.number}: {eggWords(egg)}
      </Text>
      <Flex gap={2} wrap="wrap" my={2}>
        {!egg.out &&
          !egg.removed &&
          shown.map(([what, label]) => (
            <Button key={what} type="button" size="small" onClick={() => onDo(what)}>
              {label}
            </Button>
          ))}
      </Flex>
      {egg.candled && <Torch path={picture} />}
    </Box>
  )
}

function eggWords(egg: KeptEgg): string {
  if (egg.out) return 'out'
  if (egg.removed) return 'removed'
  return [
    GRADE_WORDS[egg.grade],
    egg.colour !== 'white' && egg.colour,
    egg.mould !== 'none' && `mould: ${egg.mould}`,
    egg.wet !== 'dry' && egg.wet,
    `feels ${egg.feel}`,
    egg.hangs && 'hangs over its clump',
    egg.pipped && 'pipped',
    egg.isolated && 'isolated',
  ]
    .filter(Boolean)
    .join(', ')
}
