import type { HatchingEgg } from './queries'

const RANK = ['consider a window', 'widen', 'too early', 'wait', 'out'] as const

/** Who needs somebody first: closed before pipped before out, and by number within. */
export function byNeed(eggs: HatchingEgg[]): HatchingEgg[] {
  return [...eggs].sort((a, b) => rankOf(a) - rankOf(b) || a.egg.number - b.egg.number)
}

function rankOf({ advice, egg }: HatchingEgg): number {
  const rank = advice ? RANK.indexOf(advice.kind) : RANK.length
  return 2 * rank + (egg.pipped_at ? 1 : 0)
}
