import { chakra, Flex, Span, Stack, Text } from '@chakra-ui/react'
import { useId, useState } from 'react'
import { chanceName } from '@/shared/chance'
import { ActBar } from '@/shared/ui/ActBar'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { Choices } from '@/shared/ui/Choices'
import { percent } from '@/shared/units'
import type { Case, Judgement } from '../queries'
import { ACTS, type Act } from './words'

const STAGE = [
  { value: 'usual', label: 'As it should be' },
  { value: 'unusual', label: 'Not for its stage' },
] as const

type Props = {
  egg: Case
  asking: boolean
  problem: string | null
  onSay: (said: Judgement) => void
}

/** What a learner makes of an egg: a chance, its stage, and what to do next. */
export function JudgeForm({ egg, asking, problem, onSay }: Props) {
  const [chance, setChance] = useState<number | null>(null)
  const [stage, setStage] = useState<(typeof STAGE)[number]['value'] | null>(null)
  const [act, setAct] = useState<Act | null>(null)
  const [day, setDay] = useState(egg.day + 3)
  const acts = ACTS.filter(({ value }) => value !== 'help' || egg.first_pip_hours !== null)
  const said = chance !== null && stage !== null && act !== null
  return (
    <chakra.form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        if (!said) return
        onSay({
          chance_percent: chance,
          usual: stage === 'usual',
          act,
          candle_day: act === 'candle' ? day : null,
        })
      }}
    >
      <Stack gap={5}>
        <Chance chance={chance} onSay={setChance} />
        <Choices
          legend="Normal for its stage?"
          choices={STAGE}
          value={stage}
          onChoose={setStage}
          columns={2}
        />
        <Choices
          legend="What next?"
          choices={acts}
          value={act}
          onChoose={setAct}
          columns={{ base: 2, md: 4 }}
        />
        {act === 'candle' && (
          <Flex as="label" align="center" gap={3}>
            Candle it on day
            <chakra.input
              type="number"
              value={day}
              min={egg.day}
              onChange={(event) => setDay(event.target.valueAsNumber || 0)}
              width="6rem"
              minHeight="thumb"
              px={3}
              bg="sheet"
              border="1.5px solid"
              borderColor="soft"
              borderRadius="small"
            />
          </Flex>
        )}
        {act === 'help' && <Caution moment="at the pip" />}
        {problem && (
          <Text role="alert" color="vessel" fontWeight="semibold">
            {problem}
          </Text>
        )}
      </Stack>
      <ActBar>
        <Button type="submit" variant="act" flex="1" disabled={!said || asking}>
          {said ? 'Tell me the truth' : 'Say all three, then the truth is told'}
        </Button>
      </ActBar>
    </chakra.form>
  )
}

/** A chance by a slider, with words; nothing is said until it was moved or tapped. */
function Chance({ chance, onSay }: { chance: number | null; onSay: (chance: number) => void }) {
  const id = useId()
  const said = chance === null ? 'not said yet' : chanceName(chance / 100)
  return (
    <div>
      <Flex justify="space-between" align="baseline" gap={3} mb={1}>
        <chakra.label htmlFor={id} fontWeight="semibold">
          Is it alive?
        </chakra.label>
        <Span aria-live="polite">
          {said}
          {chance !== null && (
            <Span fontSize="figure" fontWeight="heavy" ms={3}>
              {percent(chance / 100)}
            </Span>
          )}
        </Span>
      </Flex>
      <chakra.input
        id={id}
        type="range"
        min={0}
        max={100}
        step={1}
        value={chance ?? 50}
        onChange={(event) => onSay(event.target.valueAsNumber)}
        onPointerUp={(event) => onSay(event.currentTarget.valueAsNumber)}
        width="100%"
        height="thumb"
        accentColor="token(colors.yolk)"
        aria-valuetext={chance === null ? 'not said yet' : `${chance} per cent, ${said}`}
        opacity={chance === null ? 0.6 : 1}
      />
      <Flex justify="space-between" color="soft" fontSize="small" aria-hidden>
        <span>dead</span>
        <span>even</span>
        <span>alive</span>
      </Flex>
    </div>
  )
}
