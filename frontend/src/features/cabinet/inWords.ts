import type { Schemas } from '@/shared/api/client'

/** Where a shelf's temperature comes from, short enough to stand under it. */
export function sourceInWords(source: string | null): string {
  switch (source) {
    case 'shelf probe':
      return 'probe here'
    case 'cabinet probe':
      return 'from the cabinet'
    case 'set point':
      return 'set point only'
    default:
      return 'not known'
  }
}

/** From `saturatedFrom` on capacitive sensors say nothing exact. */
export function humidityInWords(humidity: number, saturatedFrom: number | undefined): string {
  const saturated = saturatedFrom !== undefined && humidity >= saturatedFrom
  return saturated ? 'air saturated' : `${Math.round(humidity * 100)} % humidity`
}

/** "Box 26-04, Yarrow, day 26, 6 eggs, 4 early for their stage, about 66 % of its water left" */
export function boxInWords(box: Schemas['BoxHereResponse']): string {
  const early = box.eggs.filter((egg) => egg.early).length
  const pipped = box.eggs.filter((egg) => egg.pipped).length
  return [
    `Box ${box.name}`,
    ...(box.species ? [box.species] : []),
    ...box.clutches.map(({ code, dam, day }) =>
      box.clutches.length > 1 ? `${code} of ${dam}, day ${day}` : `${dam}, day ${day}`,
    ),
    box.species ? null : `${box.eggs.length} eggs`,
    early ? `${early} early for their stage` : null,
    pipped ? `${pipped} pipped` : null,
    box.water_left ? `about ${Math.round(box.water_left.share * 100)} % of its water left` : null,
  ]
    .filter(Boolean)
    .join(', ')
}
