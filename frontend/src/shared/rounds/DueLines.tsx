import { chakra, Span, Strong } from '@chakra-ui/react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { day } from '@/shared/dates'
import { isPressing, URGENCY_WORDS } from './urgency'
import { WhyEggs } from './WhyEggs'

/** Reasons that judge eggs; the others are about the box or the calendar. */
const JUDGED = new Set<string>(['dents', 'watch'])

/** Why a box is opened today, one reason a line, each of which can be put off. */
export function DueLines({
  box,
  code,
  due,
  postponed,
  named = false,
}: {
  /** Its name. */
  box: string
  /** The clutch of most eggs in it. */
  code: string
  due: Schemas['DueResponse'][]
  postponed: Schemas['PostponedResponse'][]
  /** Whether the box is to be named: where reasons of several stand together. */
  named?: boolean
}) {
  const postpone = useAct(
    (body: Schemas['PostponementRequest']) => answer(api.POST('/api/postponements', { body })),
    (act) => act,
  )
  if (due.length + postponed.length === 0) return null
  return (
    <chakra.ul mt={1}>
      {due.map((reason) => (
        <chakra.li key={reason.kind + reason.text} display="flex" alignItems="center" gap={3}>
          <Span flex="1">
            {isPressing(reason.urgency) && (
              <Strong color="vessel">{URGENCY_WORDS[reason.urgency]} </Strong>
            )}
            {named && `Box ${box}: `}
            {reason.text}
            {JUDGED.has(reason.kind) && <WhyEggs code={code} eggs={reason.eggs} />}
          </Span>
          <chakra.button
            type="button"
            aria-label={`Later, in a day: ${reason.text}`}
            onClick={() => postpone.mutate({ box, kind: reason.kind, days: 1 })}
            minHeight="thumbSmall"
            px={2}
            color="yolkInk"
            fontWeight="semibold"
            textDecoration="underline"
            textUnderlineOffset="3px"
            cursor="pointer"
            whiteSpace="var(--one-line)"
            flexShrink={0}
          >
            Later
          </chakra.button>
        </chakra.li>
      ))}
      {postponed.map((reason) => (
        <chakra.li key={reason.kind} color="soft">
          Later, on {day(reason.until)}: {reason.text}
        </chakra.li>
      ))}
    </chakra.ul>
  )
}
