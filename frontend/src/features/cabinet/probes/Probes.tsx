import { Box, chakra, Flex, Span, Strong, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { FAULT_WORDS, type Fault, ofReadings, spanOf } from '@/shared/climate/faults'
import { day, dayAndTime } from '@/shared/dates'
import { LogToggle } from '@/shared/log/LogToggle'
import { Button } from '@/shared/ui/Button'
import { difference, type TemperatureUnit, temperature, useTemperatureUnit } from '@/shared/units'
import { humidityInWords } from '../inWords'
import { CheckForm } from './CheckForm'
import { HangForm } from './HangForm'
import { NewProbe } from './NewProbe'

type Probe = Schemas['HungProbeResponse']

/** Every probe in the cabinet: what it says, what is added to that, where it hung. */
export function Probes({ cabinet }: { cabinet: Schemas['CabinetResponse'] }) {
  return (
    <>
      {cabinet.probes.length === 0 && (
        <p>
          None. Add a logger's probe here, or read a thermometer by hand: both are brought in under{' '}
          <Span textDecoration="underline">
            <Link to="/readings">readings</Link>
          </Span>
          .
        </p>
      )}
      <ul>
        {cabinet.probes.map((probe) => (
          <ProbeLine
            key={probe.id}
            probe={probe}
            wrong={cabinet.faults.find((fault) => ofReadings(fault) && goesOn(fault, probe))}
            asOf={cabinet.as_of}
          />
        ))}
      </ul>
      <NewProbe cabinet={cabinet} />
    </>
  )
}

function goesOn(fault: Fault, probe: Probe): boolean {
  return fault.end === null && fault.probe_ids.includes(probe.id)
}

function ProbeLine({
  probe,
  wrong,
  asOf,
}: {
  probe: Probe
  /** What its readings are not believed for, now. */
  wrong: Fault | undefined
  asOf: string
}) {
  const unit = useTemperatureUnit()
  const rules = useRules().data?.climate
  const [open, setOpen] = useState<'check' | 'hang' | null>(null)
  const done = () => setOpen(null)
  return (
    <chakra.li py={3} borderTop="1px solid" borderColor="line">
      <Flex wrap="wrap" align="baseline" columnGap={4}>
        <Strong fontSize="lead">{probe.name}</Strong>
        {probe.last_c !== null && probe.last_at && (
          <span>
            shows {temperature(probe.last_c, unit)}
            {probe.last_humidity !== null &&
              `, ${humidityInWords(probe.last_humidity, rules?.saturated_humidity)}`}{' '}
            at {dayAndTime(probe.last_at)}
          </span>
        )}
      </Flex>
      {wrong && (
        <Text fontWeight="semibold" color="vessel">
          {FAULT_WORDS[wrong.kind].name} {spanOf(wrong)}. {FAULT_WORDS[wrong.kind].look}
        </Text>
      )}
      <Box color="soft" fontSize="small">
        {probe.place}, since {day(probe.since)}
        {probe.device && `, sent by ${probe.device}`}
        {!probe.by_hand && `. ${offsets(probe, unit, rules?.unchecked_probe_sd_c)}`}
        {probe.left_out.length > 0 &&
          `. Left out: ${probe.left_out.map((l) => `${dayAndTime(l.start)} to ${dayAndTime(l.end)}${l.reason ? ` (${l.reason})` : ''}`).join('; ')}`}
        {probe.stays.length > 1 &&
          `. Before: ${probe.stays
            .slice(0, -1)
            .map((stay) => `${stay.place ?? 'nowhere'} from ${day(stay.start)}`)
            .join(', ')}`}
        .
      </Box>
      {!probe.by_hand && (
        <Flex gap={2} mt={1} ms={-3}>
          <Button
            type="button"
            variant="bare"
            size="small"
            aria-expanded={open === 'check'}
            onClick={() => setOpen(open === 'check' ? null : 'check')}
          >
            Check it
          </Button>
          <Button
            type="button"
            variant="bare"
            size="small"
            aria-expanded={open === 'hang'}
            onClick={() => setOpen(open === 'hang' ? null : 'hang')}
          >
            Move it
          </Button>
        </Flex>
      )}
      <LogToggle about={probe.id} of={`probe ${probe.name}`} />
      {open === 'check' && <CheckForm probe={probe} asOf={asOf} onDone={done} />}
      {open === 'hang' && <HangForm probe={probe} asOf={asOf} onDone={done} />}
    </chakra.li>
  )
}

function offsets(probe: Probe, unit: TemperatureUnit, uncheckedC: number | undefined): string {
  const parts = []
  if (!probe.checked) {
    const about = uncheckedC === undefined ? '' : `: ±${difference(uncheckedC, unit, 1)}`
    parts.push(`Not checked against a reference${about}`)
  } else if (Math.abs(probe.offset_c) < 0.005) parts.push('Checked, right as it is')
  else {
    const sign = probe.offset_c > 0 ? '+' : '−'
    parts.push(`${sign}${difference(Math.abs(probe.offset_c), unit, 2)} are added`)
  }
  if (Math.abs(probe.humidity_offset) >= 0.0005) {
    const percent = probe.humidity_offset * 100
    parts.push(`${percent > 0 ? '+' : '−'}${Math.abs(percent).toFixed(1)} % to its humidity`)
  }
  return parts.join(', ')
}
