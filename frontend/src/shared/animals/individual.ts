/** Who something is recorded of, as it stands in the address it is sent to. */
export type Individual = { animal: number } | { hatchling: number }
/** One of them, or several hatchlings at once. */
export type Leaving = Individual | { hatchlings: number[] }

/** Whether an animal is in the house and not retired. */
export const breeds = (animal: { retired: boolean; departure: unknown }) =>
  !animal.retired && !animal.departure
