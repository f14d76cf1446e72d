/** The path the house is under, like "/sandboa"; "" at a host of its own. */
export const SUB_PATH =
  typeof document === 'undefined'
    ? ''
    : (document.querySelector<HTMLMetaElement>('meta[name="sandboa-path"]')?.content ?? '')

/** A path of the house, like "/api/live", where the house is. */
export function under(path: string): string {
  return SUB_PATH + path
}
