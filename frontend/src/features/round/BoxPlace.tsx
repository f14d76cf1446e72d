import { Span } from '@chakra-ui/react'
import { useCallback, useEffect, useRef, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { useKeys } from '@/shared/keys/useKeys'
import { MomentField } from '@/shared/moment/MomentField'
import { heldMoment, holdMoment, useMoment } from '@/shared/moment/moment'
import { store } from '@/shared/offline/store'
import { useWaiting } from '@/shared/offline/useDelivery'
import { DueLines } from '@/shared/rounds/DueLines'
import { Button } from '@/shared/ui/Button'
import { Waiting } from '@/shared/ui/page'
import { DoorClock } from './DoorClock'
import { type Draft, exceptions, openBox, seenAt, visitOf, wrongWith } from './draft'
import { NoRound } from './NoRound'
import {
  keepOpen,
  nextDue,
  openDraft,
  type Round,
  type RoundBox,
  useLimits,
  useRound,
} from './queries'
import { isOthers, useShares } from './shares'
import { VisitForm } from './VisitForm'

/** One box, open: last time beside now, exceptions only, and shut again. */
export function Component() {
  const { box: name = '' } = useParams()
  const [moment] = useMoment()
  const round = useRound(moment)
  const box = round.data?.boxes.find((b) => b.name.toLowerCase() === name.toLowerCase())
  if (!round.data) return <NoRound error={round.error} />
  if (!box)
    return <NoRound words={`There is no box ${name} with eggs in it${moment ? ' then' : ''}.`} />
  return <OpenBox key={box.name} box={box} round={round.data} />
}

function OpenBox({ box, round }: { box: RoundBox; round: Round }) {
  const [draft, setDraft] = useState<Draft | null>(null)
  const navigate = useNavigate()
  const { boxes: closed } = useWaiting()
  const { name } = box
  // The house reading on must not open this box anew.
  const asOpened = useRef(box)

  // What is open now, for what changes it; what is drawn follows.
  const held = useRef<Draft | null>(null)
  const change = useCallback((becomes: (draft: Draft) => Draft) => {
    if (!held.current) return
    held.current = becomes(held.current)
    setDraft(held.current)
    void keepOpen(held.current)
  }, [])

  useEffect(() => {
    // What was tapped before the phone locked, or a door just opened.
    let here = true
    openDraft(name).then((kept) => {
      if (!here) return
      const moment = heldMoment()
      const opened = kept ?? openBox(asOpened.current, new Date(), moment)
      // What was tapped is of the moment that is held now, wherever that was changed.
      held.current = moment === opened.closedAt ? opened : seenAt(opened, moment, new Date())
      setDraft(held.current)
    })
    return () => {
      here = false
    }
  }, [name])
  const limits = useLimits(box)
  const wrong = draft && wrongWith(draft, limits)
  const others = isOthers(useShares().shares)
  const next = nextDue(
    round.boxes.filter((other) => other.name === name || !others(other)),
    closed,
    name,
  )
  const shut = async () => {
    if (!draft || wrong) return
    await store.transaction('rw', store.visits, store.openBoxes, async () => {
      await store.visits.add({ visit: visitOf(draft, new Date()) })
      await store.openBoxes.delete(name)
    })
    navigate(next ? `/round/${encodeURIComponent(next.name)}` : '/round')
  }
  const leave = async () => {
    await store.openBoxes.delete(name)
    navigate('/round')
  }
  useKeys('place', 'This box', [
    { keys: ['k'], what: 'the rest as before, and shut', act: () => void shut() },
    { keys: ['ArrowLeft', 'ArrowRight'], shown: 'arrow keys', what: 'choose an egg of the box' },
  ])

  if (!draft) return <Waiting />
  return (
    <VisitForm
      box={box}
      round={round}
      draft={draft}
      onChange={change}
      clock={
        <>
          <MomentField
            label="Seen"
            asOf={round.as_of}
            moment={draft.closedAt}
            onChange={(moment) => {
              // The next box is entered for the same moment.
              holdMoment(moment)
              change((open) => seenAt(open, moment, new Date()))
            }}
          />
          {draft.closedAt === null && <DoorClock since={draft.openedAt} />}
        </>
      }
      reasons={
        <DueLines
          box={box.name}
          code={box.clutches[0]?.code ?? ''}
          due={box.due}
          postponed={box.postponed}
        />
      }
      leave={
        <Button onClick={leave} aria-label="Leave without recording anything">
          Leave
        </Button>
      }
      record={
        <Button
          variant="act"
          flex="1"
          minWidth={0}
          maxWidth={{ md: '26.25rem' }}
          flexDirection="column"
          gap={0}
          lineHeight={1.15}
          disabled={!!wrong}
          onClick={() => void shut()}
        >
          {exceptions(draft) ? 'Rest as before, shut' : 'All as before, shut'}
          {next && (
            <Span fontSize="fine" fontWeight="medium">
              next {next.name}, {next.cabinet}
            </Span>
          )}
        </Button>
      }
    />
  )
}
