/** A colour token as CSS, for the drawings: follows the theme without rendering again. */
export function token(name: string): string {
  return `var(--sb-colors-${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)})`
}
