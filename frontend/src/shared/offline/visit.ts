// Not crypto.randomUUID: browsers have that on https and on the machine itself only.
import { nanoid } from 'nanoid'
import type { Schemas } from '../api/client'

export type Visit = Schemas['VisitRequest']

/** The box of a visit; one kept since before boxes had names says its clutch, whose name it had. */
export const boxOf = (visit: Visit): string => visit.box ?? visit.code ?? ''

/** A closed visit on its way to the house; in the order of `id`. */
export type QueuedVisit = {
  id?: number
  visit: Visit
  /** Why the house refused it; it stays here until the keeper mends or drops it. */
  refused?: string
}

/** A photo taken at a visit; it follows the visits. */
export type QueuedPhoto = {
  id?: number
  owner: number
  egg: number | null
  step: string | null
  takenAt: string
  picture: Blob
  refused?: string
}

/** What the house said to a visit that collided with another device's; shown until read. */
export type Conflict = { id?: number; code: string; closedAt: string; words: string[] }

/** A box that is open: everything tapped so far, so that nothing is lost when a phone locks. */
export type OpenBox<Draft> = { code: string; draft: Draft }

const DEVICE = 'sandboa.device'

/** A name of this device's own, so that its visits are told from those of others. */
export function deviceName(): string {
  const known = localStorage.getItem(DEVICE)
  if (known) return known
  const name = nanoid(8)
  localStorage.setItem(DEVICE, name)
  return name
}

/** The key of a new visit: delivered twice, it is one visit. */
export function newVisitKey(): string {
  return `${deviceName()}.${nanoid()}`
}
