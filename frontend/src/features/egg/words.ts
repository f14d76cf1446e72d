import type { Schemas } from '@/shared/api/client'
import { chance } from '@/shared/chance'

/** A push in words: how strongly a sign speaks for the egg or against it. */
export function pushWords(push: number): string {
  const size = Math.abs(push)
  if (size < 0.005) return 'says nothing'
  const how = size >= 2 ? 'strongly' : size >= 0.7 ? 'clearly' : 'a little'
  return push > 0 ? `${how} for it` : `${how} against it`
}

/** "+2.0", "−0.6" */
export function signed(value: number): string {
  const size = Math.abs(value).toFixed(1)
  return value < 0 ? `\u2212${size}` : `+${size}`
}

/** "today", "1 day ago", "28 days ago": how old a look is. */
export function ago(seen: string, asOf: string): string {
  const days = Math.floor((Date.parse(asOf) - Date.parse(seen)) / 86_400_000)
  if (days < 1) return 'today'
  return days === 1 ? '1 day ago' : `${days} days ago`
}

/** What is still to come of it: "Chance to pip 81 %, to hatch 78 %." */
export function chancesAhead({ will_pip, will_hatch }: Schemas['StandingResponse']): string {
  return `Chance to pip ${chance(will_pip)}, to hatch ${chance(will_hatch)}.`
}

/** What a line rests on: its weight, the factor for signs that lean on one another, its push. */
export function numbersOf(line: Schemas['EvidenceResponse'], dependence: number): string {
  if (line.key.startsWith('prior')) return `starts at ${signed(line.push)}`
  if (line.key === STAGE) {
    return `${Math.round(line.log_ratio * 100)}\u00a0% of living eggs die before they pip: ${signed(line.push)} by now`
  }
  const times = line.times === 1 ? '' : ` × ${Number(line.times.toFixed(1))}`
  return `weight ${signed(line.log_ratio)} × ${dependence}${times}, here ${signed(line.push)}`
}

/** The losses of an egg's stage, in the list of evidence. */
export const STAGE = 'standing.stage'
