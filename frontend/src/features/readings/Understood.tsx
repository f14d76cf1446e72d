import { Box, chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { SensorTold } from './SensorTold'

const WRITTEN: Record<string, string> = {
  ',': 'commas',
  ';': 'semicolons',
  '\t': 'tabs',
  '|': 'bars',
}

/** What was understood of a file, sensor by sensor, before it is stored. */
export function Understood({ told }: { told: Schemas['ReadFileResponse'] }) {
  const written =
    told.written === 'spreadsheet'
      ? `a spreadsheet, sheet ${told.sheet}`
      : `text parted by ${WRITTEN[told.written] ?? 'commas'}`
  const order = told.order && `, ${told.order === 'dmy' ? 'day' : 'month'} first`
  return (
    <>
      {told.sensors.map((sensor, place) => (
        <SensorTold
          key={place}
          sensor={sensor}
          columns={told.columns}
          alone={told.sensors.length === 1}
        />
      ))}
      <Box color="soft" mt={3}>
        Written as {written}
        {order}
        {told.times_have_offset ? ', times with their offset' : ''}.
      </Box>
      {told.bad_row_count > 0 && (
        <chakra.details mt={4} open={told.bad_row_count <= 12}>
          <chakra.summary fontWeight="bold" cursor="pointer" minHeight="2.5rem">
            {told.bad_row_count} {told.bad_row_count === 1 ? 'row' : 'rows'} cannot be read and will
            be left out
          </chakra.summary>
          <chakra.ul maxHeight="16rem" overflowY="auto">
            {told.bad_rows.map((row) => (
              <li key={`${row.line} ${row.reason}`}>
                line {row.line}: {row.reason}
              </li>
            ))}
          </chakra.ul>
        </chakra.details>
      )}
    </>
  )
}
