import { Box, chakra, Flex, Span, Stack, Strong } from '@chakra-ui/react'
import { type FormEventHandler, type ReactNode, useEffect, useRef } from 'react'
import { Link } from 'react-router'
import { dayAndTime } from '@/shared/dates'
import { Photos } from '@/shared/photos/Photos'
import { ActBar } from '@/shared/ui/ActBar'
import { Button } from '@/shared/ui/Button'
import { Notice } from '@/shared/ui/page'
import { type LayDay, type Step, titleOf } from './steps'

type Props = {
  day: LayDay
  step: Step
  back?: Step | undefined
  onSubmit: FormEventHandler
  /** What the amber button says; left out, the step's own controls lead on. */
  nextLabel?: string
  busy?: boolean
  /** The egg that photos taken here are of. */
  egg?: number
  /** Photos of a step after recording, which belong to the clutch or the dam; null for none. */
  photos?: ReactNode
  children: ReactNode
}

/** One step of lay day: where one is, the step itself, and the way on under the thumb. */
export function StepFrame(props: Props) {
  const { day, step, back, onSubmit, nextLabel, busy, egg, photos, children } = props
  const title = useRef<HTMLHeadingElement>(null)
  useEffect(() => {
    // A new step starts at its title, for the eye and for the screen reader.
    if (step) title.current?.focus({ preventScroll: true })
  }, [step])
  const at = day.steps.indexOf(step)
  const { state } = day
  return (
    <chakra.form
      noValidate
      onSubmit={onSubmit}
      display="flex"
      flexDirection="column"
      minHeight={{ base: 'calc(100dvh - 9.375rem)', md: 'auto' }}
      maxWidth="47.5rem"
    >
      <Flex align="baseline" gap={3} wrap="wrap" color="soft">
        <span>
          <Strong color="ink">{state.dam}</Strong>
          {state.sire ? ` × ${state.sire}` : ''}
          {state.eggs.length ? `, ${day.count ?? ''}` : ''}
        </span>
        <span>laid {dayAndTime(state.laid_at)}</span>
        <Span marginStart="auto">
          <Span srOnly>step</Span> {at + 1} of {day.steps.length}
        </Span>
      </Flex>
      <Progress steps={day.steps.length} at={at} />
      <chakra.h1
        ref={title}
        tabIndex={-1}
        fontSize={{ base: 'larger', md: 'figure' }}
        fontWeight="heavy"
        lineHeight={1.15}
        mb={4}
        outline="none"
        _focusVisible={{ outline: 'none' }}
      >
        {titleOf(step, day.state)}
      </chakra.h1>
      {day.found_again && (
        <Box mb={4}>
          <Notice label="Found again">{day.found_again}</Notice>
        </Box>
      )}
      <Stack flex="1" gap={5}>
        {children}
        {photos !== undefined ? (
          photos
        ) : (
          <Photos
            photos={day.photos.filter((p) => (egg ? p.egg === egg : p.step === step))}
            of={{ owner: day.id, step, ...(egg && { egg }) }}
          />
        )}
      </Stack>
      <ActBar>
        {back && (
          <Button asChild>
            <Link to={`/lay-day/${day.id}/${back}`}>Back</Link>
          </Button>
        )}
        {nextLabel && (
          <Button type="submit" variant="act" disabled={busy} flex="1" maxWidth={{ md: '20rem' }}>
            {nextLabel}
          </Button>
        )}
      </ActBar>
    </chakra.form>
  )
}

function Progress({ steps, at }: { steps: number; at: number }) {
  return (
    <Flex gap="3px" mt={2} mb={4} aria-hidden>
      {Array.from({ length: steps }, (_, i) => (
        <Span key={i} flex="1" height="6px" bg={i < at ? 'soft' : i === at ? 'yolkInk' : 'line'} />
      ))}
    </Flex>
  )
}
