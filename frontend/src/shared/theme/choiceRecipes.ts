import { defineSlotRecipe } from '@chakra-ui/react'
import { checkboxAnatomy, menuAnatomy } from '@chakra-ui/react/anatomy'

/** The ring around what has the focus, where the focus itself is on a hidden input inside. */
export const focusRing = { outline: '3px solid', outlineColor: 'focus', outlineOffset: '2px' }

/** A card to choose: told by its line and weight, not by colour alone. */
export const card = {
  border: '2px solid',
  borderColor: 'line',
  borderRadius: 'small',
  bg: 'transparent',
  fontWeight: 'medium',
  cursor: 'pointer',
  _hover: { bg: 'faint' },
} as const

export const chosenCard = {
  borderColor: 'ink',
  bg: 'sheet',
  fontWeight: 'bold',
  boxShadow: 'inset 0 -4px 0 0 currentColor',
} as const

export const choiceRecipes = {
  checkbox: defineSlotRecipe({
    className: 'checkbox',
    slots: checkboxAnatomy.keys(),
    base: {
      root: {
        position: 'relative',
        display: 'flex',
        width: 'fit-content',
        alignItems: 'center',
        gap: 3,
        minHeight: 'thumb',
        cursor: 'pointer',
      },
      control: {
        display: 'grid',
        placeItems: 'center',
        width: '1.6rem',
        height: '1.6rem',
        flexShrink: 0,
        bg: 'sheet',
        border: '2px solid',
        borderColor: 'soft',
        borderRadius: 'small',
        _checked: { bg: 'yolkInk', borderColor: 'yolkInk', color: 'sheet' },
        _focusVisible: focusRing,
        // Where colours are forced, the tick keeps the colour of text.
        '@media (forced-colors: active)': { _checked: { color: 'CanvasText' } },
        '& svg': { width: '1.2rem', height: '1.2rem', strokeWidth: '4' },
      },
    },
  }),
  menu: defineSlotRecipe({
    className: 'menu',
    slots: menuAnatomy.keys(),
    base: {
      content: {
        display: 'grid',
        gridTemplateColumns: 'repeat(2, minmax(0, 1fr))',
        width: '100vw',
        px: 4,
        bg: 'sheet',
        borderTop: '1.5px solid',
        borderColor: 'line',
        outline: 'none',
        zIndex: 6,
      },
      item: { cursor: 'pointer', _highlighted: { bg: 'faint' } },
    },
  }),
}
