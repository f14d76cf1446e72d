/** What a keeper sees of an egg; everything the drawing and its words are made from. */
export type EggLook = {
  number: number
  /** What it is called in its box where eggs of several clutches lie: "26-04/3". */
  name?: string
  slug?: boolean
  /** Marks of its shell; none where it is smooth. */
  shells?: readonly string[]
  /** Turgor grade 0-4; null when nobody has looked. */
  grade?: number | null
  /** Dented earlier than its stage allows. */
  early?: boolean
  dentsAllOver?: boolean
  mould?: 'spot' | 'patch' | 'furry'
  wet?: boolean
  colour?: 'white' | 'yellowing' | 'odd'
  supported?: boolean
  topMark?: 'top' | 'side' | 'under'
  candled?: Candling
  fate?: 'pipped' | 'cut' | 'out' | 'removed' | 'lost'
  standing?: 'sound' | 'watch' | 'failing' | 'probably lost'
}

/** What tells eggs of one box apart. */
export const nameOf = (egg: EggLook): string => egg.name ?? String(egg.number)

/** As short as it can stand on an egg: "04/3" of 26-04/3. */
export const shortName = (egg: EggLook): string => nameOf(egg).replace(/^\d\d-/, '')

export type Candling = {
  vessels: 'strong' | 'weak' | 'broken' | 'none'
  disc?: 'top' | 'side' | 'under'
  darkBody?: boolean
}

export const GRADES = [0, 1, 2, 3, 4] as const

export const GRADE_WORDS = ['firm', 'one dimple', 'clear dents', 'creased', 'collapsed'] as const

/** The ring an egg wears by its standing; where none was judged, early dents put it on watch. */
export function ringsOf(egg: EggLook): 0 | 1 | 2 {
  if (egg.standing === 'failing') return 2
  if (egg.standing === 'watch' || (egg.early && egg.standing === undefined)) return 1
  return 0
}
