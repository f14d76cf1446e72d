import type { Schemas } from '@/shared/api/client'

export type Place = { value: string; label: string; asked: Schemas['PlaceRequest'] }

/** Every place a probe can hang, the box of the clutch one came from first. */
export function placesOf(
  choices: Schemas['ChoicesResponse'],
  today: Schemas['TodayResponse'],
  first: string | null,
): Place[] {
  const boxes = today.boxes.map(({ name, clutches }) => ({
    value: `box ${name}`,
    label: `Box ${name}`,
    asked: { box: name },
    own: clutches.some(({ code }) => code === first),
  }))
  boxes.sort((a, b) => Number(b.own) - Number(a.own))
  const cabinets = choices.cabinets.flatMap((cabinet) => [
    {
      value: cabinet.name,
      label: `${cabinet.name}, the cabinet`,
      asked: { cabinet: cabinet.name },
    },
    ...cabinet.shelves.map((shelf) => ({
      value: `${cabinet.name}/${shelf}`,
      label: `${cabinet.name}, ${shelf}`,
      asked: { cabinet: cabinet.name, shelf },
    })),
  ])
  return [...boxes, ...cabinets]
}
