import { type EggLook, nameOf, ringsOf } from './look'

const GRADES = ['firm', 'one slight dimple', 'clear dents', 'creased or sunken', 'collapsed']
const FATES = {
  pipped: 'pipped',
  cut: 'cut open at the top',
  out: 'out of the egg',
  removed: 'removed',
  lost: 'lost',
}
const COLOURS = { white: undefined, yellowing: 'yellowing', odd: 'oddly coloured' }
const TOP_MARKS = { top: undefined, side: 'top mark on the side', under: 'top mark underneath' }
const DISCS = { top: undefined, side: 'disc at the side', under: 'disc underneath' }

/** The drawing in words: "Egg 3, day 26, clear dents, early for its stage, watch". */
export function describeEgg(egg: EggLook, day?: number): string {
  const parts = [
    egg.slug ? `Slug ${nameOf(egg)}` : `Egg ${nameOf(egg)}`,
    day !== undefined && `day ${day}`,
    egg.fate && FATES[egg.fate],
    ...(egg.slug ? [] : [...dents(egg), ...shell(egg), ...inside(egg), standing(egg)]),
  ]
  return parts.filter(Boolean).join(', ')
}

type Part = string | false | undefined

function dents(egg: EggLook): Part[] {
  const looked = egg.grade !== null && egg.grade !== undefined
  return [
    // Of an egg that pipped, came out, was taken out or lost there is nothing left to look at.
    looked ? (GRADES[egg.grade as number] ?? 'unknown') : !egg.fate && 'not looked at yet',
    egg.dentsAllOver && 'dented all over',
    egg.early && 'early for its stage',
  ]
}

function shell(egg: EggLook): Part[] {
  return [
    ...shellsOf(egg),
    egg.mould && (egg.mould === 'furry' ? 'furry with mould' : `mould ${egg.mould}`),
    egg.wet && 'wet',
    egg.colour && COLOURS[egg.colour],
    egg.supported && 'supported',
    egg.topMark && TOP_MARKS[egg.topMark],
  ]
}

function shellsOf({ shells = [] }: EggLook): Part[] {
  const marks = shells.filter((mark) => mark !== 'smooth' && mark !== 'misshapen')
  return [
    marks.length > 0 && `${marks.join(' and ')} shell`,
    shells.includes('misshapen') && 'misshapen',
  ]
}

function inside({ candled }: EggLook): Part[] {
  if (!candled) return []
  const { vessels, disc, darkBody } = candled
  return [
    vessels === 'none' ? 'candled: no vessels' : `candled: ${vessels} vessels`,
    disc && DISCS[disc],
    darkBody && 'dark body below',
  ]
}

function standing(egg: EggLook): Part {
  const said = egg.standing ?? (ringsOf(egg) === 1 ? 'watch' : undefined)
  return said !== 'sound' && said
}
