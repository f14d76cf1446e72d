import type { Schemas } from './client'

/** The clutches of which eggs lie in boxes today, each once. */
export function clutchesOf(
  today: Schemas['TodayResponse'] | undefined,
): Schemas['ClutchInBoxResponse'][] {
  const all = today?.boxes.flatMap((box) => box.clutches) ?? []
  return [...new Map(all.map((clutch) => [clutch.code, clutch])).values()]
}
