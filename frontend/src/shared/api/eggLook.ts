import type { EggLook } from '@/eggs/look'
import type { PlacedEgg } from '@/eggs/places'
import type { Schemas } from './client'

type Mould = NonNullable<EggLook['mould']>

/** An egg of the API as the drawing wants it: what was last seen of it, at its place. */
export function asLook(egg: Schemas['EggResponse']): PlacedEgg {
  const { mould, wet, colour } = egg.signs
  return {
    number: egg.number,
    name: egg.name,
    x: egg.x,
    y: egg.y,
    clump: egg.clump,
    slug: egg.slug,
    shells: egg.shells,
    grade: egg.grade,
    early: (egg.excess ?? 0) > 0,
    supported: egg.events.includes('supported'),
    ...(mould && mould !== 'none' && { mould: mould as Mould }),
    ...(wet && wet !== 'dry' && { wet: true }),
    ...(colour && { colour: colour as NonNullable<EggLook['colour']> }),
    ...(egg.standing && { standing: egg.standing }),
    ...(egg.pipped_at && { fate: 'pipped' as const }),
    ...(egg.removed_at && { fate: 'removed' as const }),
    ...fateLook(egg),
  }
}

/** What became of it, as far as the drawing tells it. */
function fateLook(egg: Schemas['EggResponse']): { fate?: NonNullable<EggLook['fate']> } {
  if (egg.lost && !egg.removed_at) return { fate: 'lost' }
  if (egg.emerged_at) return { fate: 'out' }
  return egg.cut_at ? { fate: 'cut' } : {}
}

/** The same from the little that a list or a cabinet knows of an egg. */
export function asSmallLook(egg: Schemas['SmallEggResponse']): PlacedEgg {
  return {
    number: egg.number,
    name: egg.name,
    x: egg.x,
    y: egg.y,
    slug: egg.slug,
    shells: egg.shells,
    grade: egg.grade,
    early: egg.early,
    ...(egg.mould && egg.mould !== 'none' && { mould: egg.mould as Mould }),
    ...(egg.standing && { standing: egg.standing }),
    ...(egg.pipped && { fate: 'pipped' as const }),
    ...(egg.removed && { fate: 'removed' as const }),
    ...(egg.out && { fate: 'out' as const }),
    ...(egg.lost && !egg.removed && { fate: 'lost' as const }),
  }
}
