import { chakra, Flex, Span } from '@chakra-ui/react'
import { describeEgg } from '@/eggs/describe'
import { EggDrawing } from '@/eggs/EggDrawing'
import type { EggLook } from '@/eggs/look'
import { Title } from '@/shared/ui/page'

const SPECIMENS: Omit<EggLook, 'number'>[] = [
  { grade: 0 },
  { grade: 1 },
  { grade: 2 },
  { grade: 3 },
  { grade: 4 },
  { grade: 2, dentsAllOver: true },
  { grade: 2, early: true },
  { grade: 0, shells: ['rough'] },
  { grade: 0, shells: ['window'] },
  { grade: 0, shells: ['nodule'] },
  { grade: 0, shells: ['thin'] },
  { grade: 0, shells: ['stained'] },
  { grade: 0, shells: ['damp spot'] },
  { grade: 0, shells: ['misshapen'] },
  { grade: 1, mould: 'spot' },
  { grade: 1, mould: 'patch' },
  { grade: 2, mould: 'furry' },
  { grade: 0, wet: true },
  { grade: 0, supported: true },
  { grade: 0, topMark: 'top' },
  { grade: 0, topMark: 'side' },
  { grade: 0, topMark: 'under' },
  { grade: 0, candled: { vessels: 'strong' } },
  { grade: 0, candled: { vessels: 'weak', disc: 'side' } },
  { grade: 1, candled: { vessels: 'broken' } },
  { grade: 0, candled: { vessels: 'none' } },
  { grade: 1, candled: { vessels: 'strong', darkBody: true } },
  { grade: 0, standing: 'watch' },
  { grade: 2, standing: 'failing' },
  { grade: 3, standing: 'probably lost' },
  { grade: 1, fate: 'pipped' },
  { grade: 1, fate: 'cut' },
  { grade: 0, fate: 'out' },
  { grade: 0, fate: 'removed' },
  { grade: 3, fate: 'lost' },
  { slug: true },
]

/** Every state of the drawn egg at four sizes, with its words: for tests and for looking. */
export function Component() {
  return (
    <>
      <Title>Specimens of the drawn egg</Title>
      <chakra.ul
        mt={6}
        display="grid"
        gridTemplateColumns={{ base: '1fr', sm: 'repeat(2, 1fr)', lg: 'repeat(4, 1fr)' }}
        columnGap={6}
        rowGap={5}
      >
        {SPECIMENS.map((look, i) => {
          const egg = { number: i + 1, ...look }
          return (
            <chakra.li key={egg.number} display="flex" flexDirection="column" gap={2}>
              <Flex align="end" gap={4} minHeight="5.75rem">
                <EggDrawing egg={egg} size={112} />
                <EggDrawing egg={egg} size={40} decorative />
                <EggDrawing egg={egg} size={22} decorative />
                <EggDrawing egg={egg} size={14} decorative />
              </Flex>
              <Span fontSize="small" color="soft">
                {describeEgg(egg)}
              </Span>
            </chakra.li>
          )
        })}
      </chakra.ul>
    </>
  )
}
