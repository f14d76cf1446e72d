import { Box, chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { fullMoment } from '@/shared/dates'
import { temperature, useTemperatureUnit } from '@/shared/units'

const DELIMITERS: Record<string, string> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'bar',
}

/** What was understood of a file, before it is stored. */
export function Understood({ told }: { told: Schemas['ReadFileResponse'] }) {
  const unit = useTemperatureUnit()
  const name = (column: number | null) =>
    column === null ? 'none' : told.heading[column] || `column ${column + 1}`
  const facts = [
    ['Readings', `${told.rows.toLocaleString('en')}`],
    told.first && told.last
      ? ['From, to', `${fullMoment(told.first.at)} \u2013 ${fullMoment(told.last.at)}`]
      : null,
    told.lowest_c !== null && told.highest_c !== null
      ? ['Between', `${temperature(told.lowest_c, unit)} and ${temperature(told.highest_c, unit)}`]
      : null,
    [
      'Columns',
      `time: ${name(told.time_column)}${told.clock_column === null ? '' : ` + ${name(told.clock_column)}`}; temperature: ${name(told.temperature_column)} in °${told.unit.toUpperCase()}; humidity: ${name(told.humidity_column)}${told.humidity_unit === 'fraction' ? ' as a fraction' : told.humidity_unit ? ' in %' : ''}`,
    ],
    [
      'Written with',
      `${DELIMITERS[told.delimiter] ?? 'comma'}${told.order ? `, ${told.order === 'dmy' ? 'day' : 'month'} first` : ''}${told.times_have_offset ? ', times with offset' : ''}`,
    ],
  ].filter((fact) => fact !== null)
  return (
    <>
      <chakra.dl display="grid" gridTemplateColumns="auto 1fr" columnGap={4} rowGap={1}>
        {facts.map(([label, value]) => (
          <Box key={label} display="contents">
            <chakra.dt color="soft">{label}</chakra.dt>
            <chakra.dd fontWeight="semibold">{value}</chakra.dd>
          </Box>
        ))}
      </chakra.dl>
      <Sample told={told} />
      {told.bad_row_count > 0 && (
        <chakra.details mt={4} open={told.bad_row_count <= 12}>
          <chakra.summary fontWeight="bold" cursor="pointer" minHeight="2.5rem">
            {told.bad_row_count} {told.bad_row_count === 1 ? 'row' : 'rows'} cannot be read and will
            be left out
          </chakra.summary>
          <chakra.ul maxHeight="16rem" overflowY="auto">
            {told.bad_rows.map((row) => (
              <li key={row.line}>
                line {row.line}: {row.reason}
              </li>
            ))}
          </chakra.ul>
        </chakra.details>
      )}
    </>
  )
}

function Sample({ told }: { told: Schemas['ReadFileResponse'] }) {
  const unit = useTemperatureUnit()
  return (
    <chakra.table mt={4} width="100%" maxWidth="34rem" borderCollapse="collapse">
      <chakra.caption srOnly>First readings as understood</chakra.caption>
      <chakra.thead color="soft" fontSize="small">
        <tr>
          <chakra.th textAlign="left" fontWeight="medium">
            first readings
          </chakra.th>
          <chakra.th textAlign="right" fontWeight="medium">
            temperature
          </chakra.th>
          <chakra.th textAlign="right" fontWeight="medium">
            humidity
          </chakra.th>
        </tr>
      </chakra.thead>
      <tbody>
        {told.sample.map((row) => (
          <chakra.tr key={row.at} borderTop="1px solid" borderColor="line">
            <chakra.td py={1}>{fullMoment(row.at)}</chakra.td>
            <chakra.td textAlign="right">{temperature(row.temperature_c, unit)}</chakra.td>
            <chakra.td textAlign="right">
              {row.humidity === null ? '' : `${Math.round(row.humidity * 100)} %`}
            </chakra.td>
          </chakra.tr>
        ))}
      </tbody>
    </chakra.table>
  )
}
