import { useRef, useState } from 'react'
import { useAct } from '@/shared/api/queries'
import { type Cells, type Check, checkLines, type NameAnswer, storeLines } from './queries'

/** A line that was finished: on its way, stored, or waiting for a look. */
export type HandLine = {
  key: number
  cells: Cells
  state: 'storing' | 'stored' | 'waiting'
  /** What the check found, where it waits for an answer. */
  check?: Check | undefined
  /** Why it could not be stored. */
  problem?: string | undefined
}

type Answers = { names?: NameAnswer[]; anyway?: boolean }

/** Lines stored one by one as they are finished; what is asked of one does not hold up the next. */
export function useHandLines() {
  const [lines, setLines] = useState<HandLine[]>([])
  const next = useRef(0)
  const change = (key: number, to: Partial<HandLine>) =>
    setLines((all) => all.map((line) => (line.key === key ? { ...line, ...to } : line)))
  const act = useAct(
    (body: Parameters<typeof storeLines>[0]) => storeLines(body),
    () => null,
    () => {},
  )

  const store = async (key: number, cells: Cells, { names = [], anyway = false }: Answers = {}) => {
    change(key, { state: 'storing', check: undefined, problem: undefined })
    const body = {
      kind: 'clutches' as const,
      lines: [cells],
      names,
      doubles: anyway ? [0] : [],
    }
    try {
      const check = await checkLines(body)
      const state = check.lines[0]?.state
      if (check.asked || state === 'refused' || (state === 'known' && !anyway)) {
        return change(key, { state: 'waiting', check })
      }
      await act.mutateAsync(body)
      change(key, { state: 'stored' })
    } catch (error) {
      const problem = error instanceof Error ? error.message : 'That did not work.'
      change(key, { state: 'waiting', problem })
    }
  }

  return {
    lines,
    add: (cells: Cells) => {
      const key = next.current++
      setLines((all) => [{ key, cells, state: 'storing' }, ...all])
      void store(key, cells)
    },
    again: (line: HandLine, answers: Answers) => void store(line.key, line.cells, answers),
    take: (line: HandLine) => setLines((all) => all.filter(({ key }) => key !== line.key)),
  }
}
