import type { Schemas } from '@/shared/api/client'
import { type Draft, eggOf, withEgg } from './draft'
import type { SignGroup } from './signs'

/** One press further through the choices of a sign; past the last it is as before again. */
export function nextValue(draft: Draft, name: string, group: SignGroup): Draft {
  const egg = eggOf(draft, name)
  const held = group.kind === 'vessels' ? egg.vessels : egg.signs[group.kind]
  const at = group.choices.findIndex((choice) => choice.value === held)
  const value = group.choices[at + 1]?.value
  if (group.kind === 'vessels') {
    return withEgg(draft, name, { vessels: value as Schemas['Vessels'] })
  }
  const { [group.kind]: _, ...others } = egg.signs
  return withEgg(draft, name, { signs: value ? { ...others, [group.kind]: value } : others })
}
