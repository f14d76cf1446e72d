import { chakra, Span } from '@chakra-ui/react'
import { useId } from 'react'
import { fromInputMoment, fullMoment, inputMoment } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'

/** ms by which a device's clock may be behind the time that is typed into it (assumption). */
const AHEAD_MS = 60_000

/** "now", quiet; tapped it opens to a date and hour. Null is now. */
export function MomentField({
  moment,
  onChange,
  label,
  again = 'Now again',
  asOf,
  problem,
}: {
  moment: string | null
  onChange: (moment: string | null) => void
  /** What happened then, like "Seen". */
  label: string
  /** What takes the time back. */
  again?: string
  /** The house's own now, where a page knows it: what the field opens with. */
  asOf?: string | undefined
  problem?: string | undefined
}) {
  const field = useId()
  if (moment === null) {
    return (
      <chakra.div display="flex" alignItems="baseline" flexWrap="wrap" columnGap={2}>
        <Span color="soft">{label}</Span>
        <Button
          type="button"
          variant="bare"
          size="small"
          ms={-2}
          aria-label={`${label} now: enter it for another time`}
          onClick={() => {
            onChange(fromInputMoment(inputMoment(asOf ?? new Date())))
            // The field comes in the button's place, and is what is typed into next.
            requestAnimationFrame(() => document.getElementById(field)?.focus())
          }}
        >
          now
        </Button>
        <Problem words={problem} />
      </chakra.div>
    )
  }
  const ahead = Date.parse(moment) > Date.now() + AHEAD_MS
  return (
    <chakra.div display="flex" alignItems="center" flexWrap="wrap" columnGap={3} rowGap={1}>
      <chakra.label htmlFor={field} color="soft">
        {label}
      </chakra.label>
      <chakra.input
        id={field}
        type="datetime-local"
        value={inputMoment(moment)}
        onChange={(event) => {
          // Cleared in the middle of typing it stays as it was.
          if (event.target.value) onChange(fromInputMoment(event.target.value))
        }}
        minHeight="thumbSmall"
        px={2}
        bg="sheet"
        border="1.5px solid"
        borderColor="soft"
        borderRadius="small"
      />
      <Span fontWeight="semibold">{fullMoment(moment)}</Span>
      <Button type="button" variant="bare" size="small" onClick={() => onChange(null)}>
        {again}
      </Button>
      <Problem words={ahead ? 'That time is in the future.' : problem} />
    </chakra.div>
  )
}

function Problem({ words }: { words: string | undefined }) {
  if (!words) return null
  return (
    <Span role="alert" color="vessel" fontWeight="semibold" width="100%">
      {words}
    </Span>
  )
}
