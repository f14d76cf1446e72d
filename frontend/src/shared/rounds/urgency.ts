const ORDER = ['none', 'watch', 'today', 'urgent']

/** 0 nothing, 1 watch, 2 today, 3 now. */
export function urgencyRank(urgency: string): number {
  return Math.max(0, ORDER.indexOf(urgency))
}

/** Whether it cannot wait: for today, or now. */
export const isPressing = (urgency: string) => urgencyRank(urgency) >= 2

export const URGENCY_WORDS: Record<string, string> = {
  watch: 'Watch',
  today: 'Today',
  urgent: 'Now',
}
