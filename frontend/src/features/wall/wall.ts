import type { Schemas } from '@/shared/api/client'
import { isPressing } from '@/shared/rounds/urgency'

type TodayBox = Schemas['TodayBoxResponse']

/** What is due at a box in a word, to be read from the door. */
const DUE_WORDS: Record<Schemas['DueKind'], string> = {
  dents: 'dented early',
  water: 'water',
  watch: 'look again',
  candle: 'candle',
  air: 'air',
  cloth: 'cloth off',
  'last days': 'last week',
  rhythm: 'visit',
}

export type ToDo = { box: string; stands: string; what: string; pressing: boolean }

/** The boxes to open, the pressing ones first, each with its reasons in a word. */
export function toDo(boxes: TodayBox[]): ToDo[] {
  return boxes
    .filter((box) => box.due.length > 0)
    .map((box) => ({
      box: box.name,
      stands: `${box.cabinet}, ${box.shelf}`,
      what: [...new Set(box.due.map(({ kind }) => DUE_WORDS[kind]))].join(', '),
      pressing: box.due.some(({ urgency }) => isPressing(urgency)),
    }))
    .sort((a, b) => Number(b.pressing) - Number(a.pressing))
}

export type CabinetNow = { name: string; setTo: number | null; low: number; high: number }

/** Each cabinet with the warmth of its boxes, from the coldest to the warmest. */
export function cabinetsNow(boxes: TodayBox[]): CabinetNow[] {
  const found = new Map<string, CabinetNow>()
  for (const { cabinet, temperature_c, set_point_c } of boxes) {
    const known = found.get(cabinet)
    found.set(cabinet, {
      name: cabinet,
      setTo: set_point_c,
      low: Math.min(known?.low ?? temperature_c, temperature_c),
      high: Math.max(known?.high ?? temperature_c, temperature_c),
    })
  }
  return [...found.values()]
}

export type Pip = { code: string; from: string; to: string }

/** The next first pips, the earliest first; each clutch once, whatever boxes it lies in. */
export function nextPips(boxes: TodayBox[]): Pip[] {
  const found = new Map<string, Pip>()
  for (const { code, first_pip } of boxes.flatMap((box) => box.clutches)) {
    if (first_pip) found.set(code, { code, from: first_pip.p10, to: first_pip.p90 })
  }
  return [...found.values()].sort((a, b) => a.from.localeCompare(b.from))
}
