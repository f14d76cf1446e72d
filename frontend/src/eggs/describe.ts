import { type EggLook, ringsOf } from './look'

const GRADES = ['firm', 'one slight dimple', 'clear dents', 'creased or sunken', 'collapsed']
const FATES = {
  pipped: 'pipped',
  cut: 'cut open at the top',
  out: 'out of the egg',
  removed: 'removed',
  lost: 'lost',
}

/** The drawing in words: "Egg 3, day 26, clear dents, early for its stage, watch". */
export function describeEgg(egg: EggLook, day?: number): string {
  const parts = [egg.slug ? `Slug ${egg.number}` : `Egg ${egg.number}`]
  if (day !== undefined) parts.push(`day ${day}`)
  if (egg.fate) parts.push(FATES[egg.fate])
  if (egg.slug) return parts.join(', ')
  if (egg.grade === null || egg.grade === undefined) {
    // Of an egg that pipped, came out, was taken out or lost there is nothing left to look at.
    if (!egg.fate) parts.push('not looked at yet')
  } else parts.push(GRADES[egg.grade] ?? 'unknown')
  if (egg.dentsAllOver) parts.push('dented all over')
  if (egg.early) parts.push('early for its stage')
  if (egg.shell && egg.shell !== 'smooth') {
    parts.push(egg.shell === 'misshapen' ? 'misshapen' : `${egg.shell} shell`)
  }
  if (egg.mould) parts.push(egg.mould === 'furry' ? 'furry with mould' : `mould ${egg.mould}`)
  if (egg.wet) parts.push('wet')
  if (egg.colour === 'yellowing') parts.push('yellowing')
  if (egg.colour === 'odd') parts.push('oddly coloured')
  if (egg.supported) parts.push('supported')
  if (egg.topMark && egg.topMark !== 'top') {
    parts.push(egg.topMark === 'side' ? 'top mark on the side' : 'top mark underneath')
  }
  if (egg.candled) {
    const { vessels, disc, darkBody } = egg.candled
    parts.push(vessels === 'none' ? 'candled: no vessels' : `candled: ${vessels} vessels`)
    if (disc && disc !== 'top') parts.push(disc === 'side' ? 'disc at the side' : 'disc underneath')
    if (darkBody) parts.push('dark body below')
  }
  const standing = egg.standing ?? (ringsOf(egg) === 1 ? 'watch' : undefined)
  if (standing && standing !== 'sound') parts.push(standing)
  return parts.join(', ')
}
