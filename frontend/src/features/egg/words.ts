/** A chance in words first, the number second. */
export function chanceWords(alive: number): string {
  const percent = `${Math.round(alive * 100)} %`
  if (alive >= 0.97) return `almost surely alive (${alive >= 0.995 ? 'over 99 %' : percent})`
  if (alive >= 0.85) return `very likely alive (${percent})`
  if (alive >= 0.6) return `likely alive (${percent})`
  if (alive >= 0.4) return `alive or not, about even (${percent})`
  if (alive >= 0.15) return `more likely lost than alive (${percent} alive)`
  return `hardly alive (${alive < 0.005 ? 'under 1 %' : percent})`
}

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
