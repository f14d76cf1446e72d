import type { Schemas } from '@/shared/api/client'

/** What a form about one probe is given. */
export type ProbeFormProps = {
  probe: Schemas['HungProbeResponse']
  /** What the cabinet was read at, an ISO moment: where its times begin. */
  asOf: string
  onDone: () => void
}
