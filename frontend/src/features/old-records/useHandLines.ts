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
  /** What was answered about it so far: a line may be asked about twice. */
  names: NameAnswer[]
  /** Whether it is another clutch than the one it looks like. */
  anyway: boolean
}

type Answers = { names?: NameAnswer[]; anyway?: boolean }

/** Lines stored one by one as they are finished; what is asked of one does not hold up the next. */
export function useHandLines() {
  const [lines, setLines] = useState<HandLine[]>([])
  const next = useRef(0)
  const last = useRef(Promise.resolve())
  const change = (key: number, to: Partial<HandLine>) =>
    setLines((all) => all.map((line) => (line.key === key ? { ...line, ...to } : line)))
  const act = useAct(
    (body: Parameters<typeof storeLines>[0]) => storeLines(body),
    () => null,
    () => {},
  )

  const store = async ({ key, cells, names, anyway }: HandLine) => {
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

  // One after the other: a line is looked at beside those that were finished before it.
  const queue = (line: HandLine) => {
    last.current = last.current.then(() => store(line))
  }

  return {
    lines,
    add: (cells: Cells) => {
      const key = next.current++
      const line: HandLine = { key, cells, state: 'storing', names: [], anyway: false }
      setLines((all) => [line, ...all])
      queue(line)
    },
    again: (held: HandLine, { names = [], anyway = false }: Answers) => {
      const line: HandLine = {
        ...held,
        state: 'storing',
        check: undefined,
        problem: undefined,
        names: [...held.names, ...names],
        anyway: held.anyway || anyway,
      }
      change(line.key, line)
      queue(line)
    },
    take: (line: HandLine) => setLines((all) => all.filter(({ key }) => key !== line.key)),
  }
}
