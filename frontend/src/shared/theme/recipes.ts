import { defineRecipe, defineSlotRecipe } from '@chakra-ui/react'
import {
  dialogAnatomy,
  fieldAnatomy,
  fileUploadAnatomy,
  nativeSelectAnatomy,
  toastAnatomy,
} from '@chakra-ui/react/anatomy'
import { choiceRecipes } from './choiceRecipes'

const control = {
  height: 'thumb',
  width: '100%',
  px: 3,
  bg: 'sheet',
  color: 'ink',
  border: '1.5px solid',
  borderColor: 'soft',
  borderRadius: 'small',
  fontSize: 'inherit',
  _placeholder: { color: 'soft', opacity: 1 },
  _invalid: { borderColor: 'vessel', borderWidth: '2.5px' },
}

export const buttonRecipe = defineRecipe({
  className: 'button',
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: 2,
    minHeight: 'thumb',
    px: 5,
    borderRadius: 'small',
    fontWeight: 'semibold',
    cursor: 'pointer',
    whiteSpace: 'var(--one-line)',
    border: '1.5px solid transparent',
    _disabled: { opacity: 0.55, cursor: 'not-allowed' },
  },
  variants: {
    variant: {
      // Amber marks what can be acted on; one such button a view at most.
      act: { bg: 'yolk', color: 'onYolk', _hover: { filter: 'brightness(1.06)' } },
      plain: { borderColor: 'soft', color: 'ink', bg: 'transparent', _hover: { bg: 'faint' } },
      bare: {
        color: 'yolkInk',
        bg: 'transparent',
        px: 2,
        textDecoration: 'underline',
        textUnderlineOffset: '3px',
        _hover: { bg: 'faint' },
      },
    },
    size: { normal: {}, small: { minHeight: '2.5rem', px: 3, fontSize: 'small' } },
  },
  defaultVariants: { variant: 'plain', size: 'normal' },
})

export const recipes = {
  input: defineRecipe({ className: 'input', base: control }),
  skipNavLink: defineRecipe({
    className: 'skip-nav',
    base: {
      position: 'fixed',
      top: 2,
      insetStart: 3,
      zIndex: 10,
      p: 3,
      bg: 'sheet',
      borderRadius: 'small',
      '&:not(:focus)': { opacity: 0, pointerEvents: 'none' },
    },
  }),
}

export const slotRecipes = {
  ...choiceRecipes,
  field: defineSlotRecipe({
    className: 'field',
    slots: fieldAnatomy.keys(),
    base: {
      root: { display: 'flex', flexDirection: 'column', gap: 1, minWidth: 0 },
      label: { fontWeight: 'semibold', fontSize: 'small' },
      helperText: { color: 'soft', fontSize: 'fine' },
      errorText: { color: 'vessel', fontWeight: 'semibold', fontSize: 'small' },
    },
  }),
  nativeSelect: defineSlotRecipe({
    className: 'native-select',
    slots: nativeSelectAnatomy.keys(),
    base: {
      root: { position: 'relative', width: '100%' },
      field: { ...control, appearance: 'none', pe: 8, cursor: 'pointer' },
      indicator: {
        position: 'absolute',
        right: 3,
        top: '50%',
        transform: 'translateY(-50%)',
        pointerEvents: 'none',
        width: '1rem',
      },
    },
  }),
  toast: defineSlotRecipe({
    className: 'toast',
    slots: toastAnatomy.keys(),
    base: {
      root: {
        display: 'flex',
        alignItems: 'center',
        gap: 4,
        bg: 'sheet',
        color: 'ink',
        border: '2px solid',
        borderColor: 'ink',
        borderRadius: 'small',
        px: 4,
        py: 2,
        maxWidth: '92vw',
        zIndex: 'var(--z-index)',
        translate: 'var(--x) var(--y)',
        scale: 'var(--scale)',
        opacity: 'var(--opacity)',
        height: 'var(--height)',
        transition: 'translate 200ms, opacity 200ms',
        _closed: { transition: 'translate 150ms, opacity 150ms' },
      },
      title: { fontWeight: 'semibold' },
      closeTrigger: {
        minHeight: '2.5rem',
        minWidth: '2.5rem',
        marginStart: 'auto',
        color: 'soft',
        fontSize: 'large',
        cursor: 'pointer',
      },
      actionTrigger: {
        color: 'yolkInk',
        minHeight: '2.5rem',
        px: 3,
        fontWeight: 'bold',
        textDecoration: 'underline',
        cursor: 'pointer',
      },
    },
  }),
  dialog: defineSlotRecipe({
    className: 'dialog',
    slots: dialogAnatomy.keys(),
    base: {
      backdrop: { position: 'fixed', inset: 0, bg: 'paper', opacity: 0.8, zIndex: 1400 },
      positioner: {
        position: 'fixed',
        inset: 0,
        display: 'grid',
        placeItems: 'center',
        zIndex: 1401,
        p: 4,
      },
      content: {
        bg: 'sheet',
        border: '1.5px solid',
        borderColor: 'soft',
        borderRadius: 'small',
        p: 6,
        maxWidth: '32rem',
        width: '100%',
        maxHeight: 'calc(100dvh - 2rem)',
        overflowY: 'auto',
        outline: 'none',
      },
      title: { fontSize: 'large', fontWeight: 'bold', mb: 4 },
    },
  }),
  fileUpload: defineSlotRecipe({
    className: 'file-upload',
    slots: fileUploadAnatomy.keys(),
    base: {
      root: { width: '100%' },
      dropzone: {
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'center',
        justifyContent: 'center',
        gap: 1,
        minHeight: '7.5rem',
        p: 4,
        textAlign: 'center',
        border: '2px dashed',
        borderColor: 'soft',
        borderRadius: 'tray',
        cursor: 'pointer',
        _dragging: { bg: 'faint', borderColor: 'yolkInk' },
      },
    },
  }),
}
