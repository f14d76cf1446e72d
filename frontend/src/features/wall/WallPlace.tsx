import { Box, chakra, Flex, Grid, Span } from '@chakra-ui/react'
import { type ReactNode, useEffect } from 'react'
import { Link } from 'react-router'
import { useToday } from '@/shared/api/queries'
import { alarmInWords, byGravity } from '@/shared/climate/Alarms'
import { useAlarms } from '@/shared/climate/useAlarms'
import { dayAndTime, dayRange } from '@/shared/dates'
import { Waiting } from '@/shared/ui/page'
import { degrees, temperature, useTemperatureUnit } from '@/shared/units'
import { cabinetsNow, nextPips, toDo } from './wall'

/** Lines of a list that fit, and under an alarm; the rest is counted. */
const LINES = 4
const LINES_UNDER_AN_ALARM = 3

/** For a tablet on the wall: what to do now, the cabinets, the next pips, to be read from the door. */
export function Component() {
  const today = useToday()
  const alarms = byGravity(
    (useAlarms().data ?? []).filter(
      (alarm) => alarm.ended_at === null && alarm.severity !== 'notice',
    ),
  )
  useAwake()
  if (!today.data) return <Waiting problem={today.error?.message} />
  const { boxes, as_of } = today.data
  const due = toDo(boxes)
  const pips = nextPips(boxes)
  const [gravest] = alarms
  const lines = gravest ? LINES_UNDER_AN_ALARM : LINES
  return (
    <Flex
      direction="column"
      gap="2vw"
      minHeight="100dvh"
      px="2.5vw"
      py="1.6vw"
      // Of the screen's width: a tablet at three metres, whatever its size.
      fontSize="max(1rem, 2.85vw)"
      lineHeight={1.2}
    >
      <Flex align="baseline" gap="2vw" wrap="wrap">
        <chakra.h1 fontSize="1.9em" fontWeight="heavy">
          {headline(due.length)}
        </chakra.h1>
        <Span color="soft" marginStart="auto">
          as of {dayAndTime(as_of)}
        </Span>
        <Link to="/">
          <Span color="soft" textDecoration="underline" fontSize="0.7em">
            Leave
          </Span>
        </Link>
      </Flex>
      {gravest && (
        <Box role="alert" bg="vessel" color="paper" px="1.5vw" py="1vw" fontWeight="bold">
          {gravest.cabinet && `${gravest.cabinet}: `}
          {alarmInWords(gravest)}
          {alarms.length > 1 && ` And ${alarms.length - 1} more.`}
        </Box>
      )}
      <Grid templateColumns={{ base: '1fr', md: '1.35fr 1fr' }} gap="3vw" alignContent="start">
        <Part name="To do now" none="Nothing: leave the doors shut." more={due.length - lines}>
          {due.slice(0, lines).map(({ box, stands, what, pressing }) => (
            <Line key={box} marked={pressing}>
              <Span fontSize="1.6em" fontWeight="heavy">
                {box}
              </Span>{' '}
              <Span color="soft">{stands}</Span>
              <Span
                display="block"
                fontWeight={pressing ? 'bold' : 'medium'}
                color={pressing ? 'vessel' : 'ink'}
              >
                {what}
              </Span>
            </Line>
          ))}
        </Part>
        <Flex direction="column" gap="2.5vw">
          <Cabinets cabinets={cabinetsNow(boxes)} />
          <Part name="Next to pip" none="No clutch is waited for." more={pips.length - lines}>
            {pips.slice(0, lines).map(({ code, from, to }) => (
              <Line key={code}>
                <Span fontWeight="heavy">{code}</Span> {dayRange(from, to)}
              </Line>
            ))}
          </Part>
        </Flex>
      </Grid>
    </Flex>
  )
}

function headline(due: number): string {
  if (due === 0) return 'No box to open'
  return due === 1 ? 'One box to open' : `${due} boxes to open`
}

function Cabinets({ cabinets }: { cabinets: ReturnType<typeof cabinetsNow> }) {
  const unit = useTemperatureUnit()
  return (
    <Part name="Cabinets" none="No eggs in any cabinet." more={cabinets.length - LINES}>
      {cabinets.slice(0, LINES).map(({ name, setTo, low, high }) => {
        const even = temperature(low, unit) === temperature(high, unit)
        return (
          <Line key={name}>
            <Span fontWeight="heavy">{name}</Span>{' '}
            {even ? '' : `${degrees(low, unit).toFixed(1)} to `}
            {temperature(high, unit)}
            {setTo !== null && (
              <Span color="soft" whiteSpace="nowrap">
                {' '}
                set {temperature(setTo, unit)}
              </Span>
            )}
          </Line>
        )
      })}
    </Part>
  )
}

function Part({
  name,
  none,
  more,
  children,
}: {
  name: string
  none: string
  more: number
  children: ReactNode[]
}) {
  return (
    <section aria-label={name}>
      <chakra.h2 fontWeight="bold" color="soft" borderBottom="4px solid" borderColor="line">
        {name}
      </chakra.h2>
      {children.length === 0 ? <chakra.p py="1vw">{none}</chakra.p> : <ul>{children}</ul>}
      {more > 0 && (
        <chakra.p color="soft" pt="0.8vw">
          and {more} more
        </chakra.p>
      )}
    </section>
  )
}

function Line({ children, marked = false }: { children: ReactNode; marked?: boolean }) {
  return (
    <chakra.li
      py="0.7vw"
      ps={marked ? '1.2vw' : 0}
      borderBottom="1px solid"
      borderColor="line"
      borderStart={marked ? '0.7vw solid' : 'none'}
      borderStartColor="vessel"
    >
      {children}
    </chakra.li>
  )
}

/** Keeps the screen on, where the browser lets a page do so: on https and this machine. */
function useAwake() {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null
    const hold = async () => {
      if (document.visibilityState !== 'visible') return
      lock = (await navigator.wakeLock?.request('screen').catch(() => null)) ?? null
    }
    void hold()
    document.addEventListener('visibilitychange', hold)
    return () => {
      document.removeEventListener('visibilitychange', hold)
      void lock?.release()
    }
  }, [])
}
