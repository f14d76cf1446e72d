import { chakra, Flex, HStack, Span } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import { answer, api, type Schemas } from '@/shared/api/client'
import { asLook } from '@/shared/api/eggLook'
import { useAct } from '@/shared/api/queries'
import { fullDay } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import type { HatchingClutch, HatchingEgg } from './queries'

type Fate = Schemas['Fate']
type Stage = Schemas['DeathStage']

const STAGES: Stage[] = ['early', 'mid', 'late', 'full term']

/** What became of every egg; the clutch is closed once all is said, and can be opened again. */
export function Fates({ clutch }: { clutch: HatchingClutch }) {
  const path = { code: clutch.code }
  const close = useAct(
    () => answer(api.POST('/api/clutches/{code}/finished', { params: { path }, body: {} })),
    (act) => act,
  )
  const reopen = useAct(
    () => answer(api.DELETE('/api/clutches/{code}/finished', { params: { path } })),
    (act) => act,
  )
  const declare = useAct(
    (fates: Schemas['FateRequest'][]) =>
      answer(api.POST('/api/clutches/{code}/fates', { params: { path }, body: { fates } })),
    (act) => act,
  )
  const out = clutch.eggs
    .filter(({ egg, fitting_fates }) => {
      return clutch.to_say.includes(egg.number) && fitting_fates.includes('hatched alive')
    })
    .map(({ egg }) => egg.number)
  const losses = clutch.eggs.some(({ lost }) => lost)
  return (
    <>
      <ul>
        {clutch.eggs.map((egg) => (
          <FateRow
            key={egg.egg.number}
            egg={egg}
            locked={clutch.finished_at !== null}
            onSay={(fate, stage) => declare.mutate([{ number: egg.egg.number, fate, stage }])}
          />
        ))}
      </ul>
      {out.length > 1 && (
        <Flex mt={4} gap={3} wrap="wrap" align="center">
          <Button
            type="button"
            disabled={declare.isPending}
            onClick={() =>
              declare.mutate(out.map((number) => ({ number, fate: 'hatched alive', stage: null })))
            }
          >
            All {out.length} not said yet hatched
          </Button>
          <Span color="soft">Say first what is otherwise, at its egg.</Span>
        </Flex>
      )}
      <HStack mt={4} gap={3} wrap="wrap">
        {clutch.finished_at ? (
          <>
            <span>Closed {fullDay(clutch.finished_at)}: what it took is learned from.</span>
            <Button type="button" disabled={reopen.isPending} onClick={() => reopen.mutate()}>
              Open it again
            </Button>
          </>
        ) : clutch.to_say.length === 0 ? (
          <Button
            type="button"
            variant="act"
            disabled={close.isPending}
            onClick={() => close.mutate()}
          >
            Close the clutch
          </Button>
        ) : (
          <Span color="soft">
            Before it can be closed, say what became of{' '}
            {clutch.to_say.length === 1 ? 'egg' : 'eggs'} {clutch.to_say.join(', ')}. Only you do:
            while one might live, it stays in.
          </Span>
        )}
        {losses && (
          <Button asChild>
            <Link to={`/losses/${clutch.code}`}>Why were they lost?</Link>
          </Button>
        )}
      </HStack>
    </>
  )
}

function FateRow({
  egg,
  locked,
  onSay,
}: {
  egg: HatchingEgg
  locked: boolean
  onSay: (fate: Fate, stage: Stage | null) => void
}) {
  const [choosing, setChoosing] = useState(false)
  const { number } = egg.egg
  const said = egg.fate
  return (
    <chakra.li
      display="flex"
      flexWrap="wrap"
      gap={3}
      alignItems="center"
      minHeight="3.75rem"
      py={2}
      borderTop="1px solid"
      borderColor="line"
      aria-label={`Fate of egg ${number}`}
    >
      <EggDrawing egg={asLook(egg.egg)} size={46} showNumber />
      <Span minWidth="min(10em, 100%)" flex="1">
        <strong>
          {egg.egg.slug ? 'Slug' : 'Egg'} {number}
        </strong>{' '}
        {said ? (
          <>
            {said}
            {egg.stage && `, ${egg.stage}`}
            {!egg.declared && (
              <Span color="soft" fontSize="small">
                {' '}
                follows from the record
              </Span>
            )}
          </>
        ) : (
          <Span color="soft">not said yet</Span>
        )}
      </Span>
      {!locked && (
        <Button
          type="button"
          size="small"
          variant={said ? 'bare' : 'plain'}
          aria-expanded={choosing}
          aria-label={`${said ? 'Change' : 'Say'} what became of egg ${number}`}
          onClick={() => setChoosing(!choosing)}
        >
          {said ? 'Change' : 'Say'}
        </Button>
      )}
      {choosing && (
        <Flex width="100%" wrap="wrap" gap={2} pb={2}>
          {egg.fitting_fates.flatMap((fate) =>
            (fate === 'dead in egg' ? STAGES : [null]).map((stage) => (
              <Button
                key={`${fate}-${stage}`}
                type="button"
                size="small"
                onClick={() => {
                  setChoosing(false)
                  onSay(fate, stage)
                }}
              >
                {stage ? `${fate}, ${stage}` : fate}
              </Button>
            )),
          )}
        </Flex>
      )}
    </chakra.li>
  )
}
