import { card, chosenCard, focusRing } from './choiceRecipes'

/**
 * Cards to choose, over plain inputs: a box that is opened holds sixty of them, and one tap must
 * not draw them all again. An input lies over its card, so that a finger that explores with a
 * screen reader finds it where it is drawn.
 */
export const choiceCards = {
  '.choice': { position: 'relative', display: 'flex', minWidth: 0 },
  '.choice > input': {
    position: 'absolute',
    inset: 0,
    width: '100%',
    height: '100%',
    margin: 0,
    opacity: 0,
    cursor: 'pointer',
  },
  '.choice > span': {
    ...card,
    _hover: {},
    flex: 1,
    minWidth: 0,
    minHeight: '3.5rem',
    display: 'flex',
    flexDirection: 'column',
    alignItems: 'center',
    justifyContent: 'center',
    gap: 1,
    p: 2,
    lineHeight: 1.2,
    textAlign: 'center',
  },
  '.choice.chip > span': { minHeight: 'thumb', px: 4, py: 2 },
  '.choice.drawn': { width: '7.25rem', fontSize: 'small' },
  '.choice.drawn > span': { minHeight: '6rem', px: 1 },
  '.choice small': { color: 'soft', fontSize: 'fine', fontWeight: 'medium' },
  '.choice > input:hover + span': { bg: 'faint' },
  '.choice > input:checked + span': chosenCard,
  '.choice > input:focus-visible + span': focusRing,
}
