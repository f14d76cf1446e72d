/**
 * Puts the hidden input of a card or checkbox over all of it: a finger that
 * explores with a screen reader finds it where it is drawn.
 */
export const COVERING = {
  inset: 0,
  width: '100%',
  height: '100%',
  margin: 0,
  opacity: 0,
  clip: 'auto',
  cursor: 'pointer',
} as const
