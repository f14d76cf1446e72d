/**
 * The first of many, `most` at a time; all, where one more than fits would be left out: a line that
 * says so would take its room.
 */
export const firstOf = <T>(items: T[], most: number): T[] =>
  items.length > most + 1 ? items.slice(0, most) : items
