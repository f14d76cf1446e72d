import { Span } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { token } from '@/shared/theme/token'

/** Probes where they hang: a cable with its tip, and the name beside it. */
export function ProbeMarks({ probes }: { probes: Schemas['HungProbeResponse'][] }) {
  if (probes.length === 0) return null
  return (
    <Span display="flex" flexWrap="wrap" columnGap={4}>
      {probes.map((probe) => (
        <Span
          key={probe.id}
          display="inline-flex"
          alignItems="flex-end"
          gap={1}
          color="soft"
          fontSize="fine"
          lineHeight={1.1}
        >
          <svg width={12} height={26} aria-hidden>
            <line x1={6} x2={6} y1={0} y2={18} stroke={token('soft')} strokeWidth={1.8} />
            <rect x={3} y={14} width={6} height={11} rx={3} fill={token('ink')} />
          </svg>
          {probe.by_hand ? 'by hand' : probe.name}
        </Span>
      ))}
    </Span>
  )
}
