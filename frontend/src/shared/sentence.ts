/** A reason of the house, which begins small and may lack its full stop, as a sentence. */
export function sentence(text: string): string {
  const tidy = text.charAt(0).toUpperCase() + text.slice(1)
  return tidy.endsWith('.') ? tidy : `${tidy}.`
}
