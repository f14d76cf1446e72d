import type { Schemas } from '../api/client'
import { ColumnUses } from '../files/ColumnUses'

type Column = Schemas['ColumnResponse']
export type ColumnUse = Column['used_for']

const USES: [ColumnUse, string][] = [
  ['unused', 'not used'],
  ['time', 'time, or date'],
  ['clock', 'clock beside a date'],
  ['temperature', 'temperature'],
  ['humidity', 'humidity'],
  ['sensor', "sensor's name"],
]

/** Every column of a logger's file, and what it is used for. */
export function Columns({
  columns,
  chosen = [],
  doubt,
  onChoose,
}: {
  columns: Column[]
  /** What was chosen already, of which the answer may be on its way. */
  chosen?: ColumnUse[] | undefined
  /** Why it is asked, where it is. */
  doubt?: string | undefined
  onChoose: (uses: ColumnUse[]) => void
}) {
  return (
    <ColumnUses
      columns={columns}
      uses={columns.map((column, place) => chosen[place] ?? column.used_for)}
      words={USES}
      unused="unused"
      doubt={doubt}
      onChoose={onChoose}
    />
  )
}
