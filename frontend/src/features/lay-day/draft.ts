import type { LayValues } from './values'

/**
 * What was typed on lay day, kept in this browser until it is recorded: leaving the
 * page, or the back button, loses nothing and stores nothing in the house.
 */
const KEY = 'sandboa.lay-day-draft'

export function keepDraft(values: LayValues) {
  if (values.dam || values.eggs.length) sessionStorage.setItem(KEY, JSON.stringify(values))
}

export function heldDraft(): LayValues | null {
  const text = sessionStorage.getItem(KEY)
  if (!text) return null
  try {
    return JSON.parse(text) as LayValues
  } catch {
    return null
  }
}

export function dropDraft() {
  sessionStorage.removeItem(KEY)
}
