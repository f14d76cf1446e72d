import type { Schemas } from '@/shared/api/client'

/** The findings with one choice toggled: one of its kind, or several where several can be. */
export function withFinding(
  found: Record<string, string[]>,
  kind: Pick<Schemas['FindingChoices'], 'kind' | 'several' | 'alone'>,
  value: string,
): Record<string, string[]> {
  const chosen = found[kind.kind] ?? []
  if (chosen.includes(value)) {
    return { ...found, [kind.kind]: chosen.filter((other) => other !== value) }
  }
  const alone = (one: string) => kind.alone.includes(one)
  const kept = kind.several && !alone(value) ? chosen.filter((other) => !alone(other)) : []
  return { ...found, [kind.kind]: [...kept, value] }
}
