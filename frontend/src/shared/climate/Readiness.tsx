import { Box, chakra, Strong, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { difference, temperature, useTemperatureUnit } from '@/shared/units'

type Cabinet = Schemas['CabinetReadinessResponse']
type Condition = Schemas['ConditionResponse']

/** Whether a cabinet is ready for eggs, which condition fails, and since when. */
export function Readiness({ cabinet }: { cabinet: Cabinet | undefined }) {
  const unit = useTemperatureUnit()
  if (!cabinet) return null
  const failing = cabinet.probes.flatMap((probe) =>
    probe.conditions.filter((c) => !c.met).map((condition) => ({ probe: probe.probe, condition })),
  )
  return (
    <Box mt={2} fontSize="small">
      <Text>
        <Strong color={cabinet.ready ? 'sound' : 'ink'}>
          {cabinet.ready
            ? 'Ready'
            : cabinet.probes.length
              ? 'Not yet ready'
              : 'Readiness not known'}
        </Strong>
        {cabinet.since && ` since ${dayAndTime(cabinet.since)}`}
        {cabinet.target_c !== null && `, set to ${temperature(cabinet.target_c, unit)}`}
        {cabinet.probes.length === 0 && '. It is measured: hang a logger in it some days before.'}
      </Text>
      {failing.length > 0 && (
        <chakra.ul color="soft">
          {failing.map(({ probe, condition }) => (
            <li key={`${probe}-${condition.requirement}`}>
              {probe}: {inWords(condition, unit)}
              {condition.since ? `, since ${dayAndTime(condition.since)}` : ''}
            </li>
          ))}
        </chakra.ul>
      )}
    </Box>
  )
}

/** A failing condition with its number in the keeper's unit; differences have no zero to shift. */
export function inWords(condition: Condition, unit: 'C' | 'F'): string {
  if (condition.value === null) return 'no readings of late'
  const degrees = (celsius: number) => difference(celsius, unit)
  const { value, limit } = condition
  switch (condition.requirement) {
    case 'no gap':
      return `${value.toFixed(1)} h without a reading (${limit} h at most)`
    case 'daily swing':
      return `a day's swing of ${degrees(value)} (${degrees(limit)} at most)`
    case 'whole swing':
      return `a swing of ${degrees(value)} over all of it (${degrees(limit)} at most)`
    case 'mean':
      return `its mean is ${degrees(value)} off target (${degrees(limit)} at most)`
  }
}
