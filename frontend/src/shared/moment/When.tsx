import type { Problem } from '@/shared/api/client'
import { MomentField } from './MomentField'
import { useMoment } from './moment'

/** Fields of requests that say when something happened. */
const MOMENTS = ['at', 'seen_at', 'closed_at', 'start', 'until', 'taken_at']

/** Whether what was refused is when it is said to have happened. */
export const isOfMoment = (problem: Problem | null): boolean =>
  MOMENTS.includes(problem?.fields[0]?.field ?? '')

/** For when what is recorded here is entered; the moment is the same on every page. */
export function When({
  label = 'Seen',
  asOf,
  problem = null,
}: {
  label?: string
  /** The house's own now, where the page knows it. */
  asOf?: string
  problem?: Problem | null
}) {
  const [moment, hold] = useMoment()
  return (
    <MomentField
      moment={moment}
      onChange={hold}
      label={label}
      asOf={asOf}
      problem={isOfMoment(problem) ? problem?.detail : undefined}
    />
  )
}
