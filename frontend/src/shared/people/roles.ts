import type { Schemas } from '../api/client'

export type Role = Schemas['Role']

/** What each role may do, in words. */
export const ROLE_MEANS: Record<Role, string> = {
  keeper: 'decides everything',
  helper: 'records at boxes, eggs and animals; changes no settings',
  visitor: 'may look, records nothing',
}

export const ROLES = Object.keys(ROLE_MEANS) as Role[]
