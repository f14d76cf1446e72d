/** A span of time on screen, s since epoch. */
export type TimeSpan = { from: number; until: number }

export const HOUR = 3600
export const DAY = 86_400

/** Buckets asked for, for three screens of time: the one shown and one on each side. */
export const POINTS = 3000

/** What is fetched around a view: a screen more on either side, so that panning finds it there. */
export function around(view: TimeSpan): TimeSpan {
  const width = view.until - view.from
  return { from: view.from - width, until: view.until + width }
}

/** Whether what was fetched still serves a view: it covers it, at about the right fineness. */
export function serves(fetched: TimeSpan, view: TimeSpan): boolean {
  const ratio = (fetched.until - fetched.from) / (3 * (view.until - view.from))
  return fetched.from <= view.from && view.until <= fetched.until && ratio < 1.6 && ratio > 0.4
}

/** A view moved by a share of its width, kept between the first and the last moment there is. */
export function panned(view: TimeSpan, share: number, limits: TimeSpan): TimeSpan {
  const width = view.until - view.from
  const from = Math.min(
    Math.max(view.from + share * width, limits.from - width / 2),
    limits.until - width / 2,
  )
  return { from, until: from + width }
}

/** A view made `factor` times as wide around its middle; at least an hour, at most all there is. */
export function zoomed(view: TimeSpan, factor: number, limits: TimeSpan): TimeSpan {
  const widest = Math.max(limits.until - limits.from, DAY)
  const width = Math.min(Math.max((view.until - view.from) * factor, HOUR), widest * 1.1)
  const middle = (view.from + view.until) / 2
  return { from: middle - width / 2, until: middle + width / 2 }
}

/** Highest minus lowest of each local day, by the worst probe: what the strip of swings shows. */
export function dailySwings(
  times: number[],
  lows: (number | null)[][],
  highs: (number | null)[][],
  dayOf: (time: number) => number,
): { day: number; swing: number }[] {
  const byDay = new Map<number, { low: number; high: number }[]>()
  times.forEach((time, i) => {
    const held = byDay.get(dayOf(time)) ?? lows.map(() => ({ low: Infinity, high: -Infinity }))
    held.forEach((probe, p) => {
      probe.low = Math.min(probe.low, lows[p]?.[i] ?? Infinity)
      probe.high = Math.max(probe.high, highs[p]?.[i] ?? -Infinity)
    })
    byDay.set(dayOf(time), held)
  })
  return [...byDay]
    .map(([day, probes]) => ({
      day,
      swing: Math.max(...probes.map(({ low, high }) => (high >= low ? high - low : -1))),
    }))
    .filter(({ swing }) => swing >= 0)
}
