import { chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { fullMoment } from '@/shared/dates'
import { Facts } from '@/shared/ui/Facts'
import { temperature, useTemperatureUnit } from '@/shared/units'

const UNITS = { c: '°C', f: '°F', k: 'K' }

/** What a sensor is called where the file does not name it. */
export function sensorName(sensor: Schemas['SensorResponse']): string {
  return sensor.name || 'The sensor'
}

/** One sensor of a file as understood: how much, of when, between what, from which columns. */
export function SensorTold({
  sensor,
  columns,
  alone,
}: {
  sensor: Schemas['SensorResponse']
  columns: Schemas['ColumnResponse'][]
  alone: boolean
}) {
  const unit = useTemperatureUnit()
  const heading = (place: number) => columns[place]?.heading || `column ${place + 1}`
  const humidity =
    sensor.humidity_column === null
      ? 'no humidity'
      : `humidity from ${heading(sensor.humidity_column)}, ${sensor.humidity_unit === 'fraction' ? 'a fraction' : 'in %'}`
  const facts = [
    ['Readings', sensor.rows.toLocaleString('en')],
    sensor.first && sensor.last
      ? ['From, to', `${fullMoment(sensor.first.at)} \u2013 ${fullMoment(sensor.last.at)}`]
      : null,
    sensor.lowest_c !== null && sensor.highest_c !== null
      ? [
          'Between',
          `${temperature(sensor.lowest_c, unit)} and ${temperature(sensor.highest_c, unit)}`,
        ]
      : null,
    [
      'Read',
      `temperature from ${heading(sensor.temperature_column)}, in ${UNITS[sensor.unit]}; ${humidity}`,
    ],
  ].filter((fact) => fact !== null)
  return (
    <chakra.section mt={4} aria-label={sensorName(sensor)}>
      {!alone && (
        <chakra.h3 fontWeight="bold" mb={1}>
          {sensorName(sensor)}
        </chakra.h3>
      )}
      <Facts facts={facts} />
      <Sample sensor={sensor} />
    </chakra.section>
  )
}

function Sample({ sensor }: { sensor: Schemas['SensorResponse'] }) {
  const unit = useTemperatureUnit()
  return (
    <chakra.table mt={3} width="100%" maxWidth="34rem" borderCollapse="collapse">
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
        {sensor.sample.slice(0, 3).map((row) => (
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
