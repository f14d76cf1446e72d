import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react'
import { choiceCards } from './choiceCards'
import { PAPER } from './paper'
import { recipes, slotRecipes } from './recipes'
import { TIGHT } from './tight'

/**
 * Two themes of equal rank: bench (light) and night room (near black, dim warm inks
 * that keep eyes dark-adapted). Every colour stands here and nowhere else.
 */
const config = defineConfig({
  cssVarsPrefix: 'sb',
  preflight: true,
  conditions: { night: '[data-theme=night] &' },
  globalCss: {
    'html, body': {
      bg: 'paper',
      color: 'ink',
      fontFamily: 'body',
      fontFeatureSettings: '"tnum"',
      lineHeight: 1.45,
    },
    // Of the reader's own size of text: whoever needs it larger sets it once, in the browser.
    html: { fontSize: { base: '100%', md: '106.25%' } },
    // Height of the bar of places at the bottom: whatever else stands there stands above it.
    'html:root': {
      '--places-bar': { base: '60px', xl: '0px' },
      // For what reads best unbroken, where a line has room for it.
      '--one-line': 'nowrap',
      [TIGHT]: { '--one-line': 'normal' },
    },
    main: { [TIGHT]: { overflowWrap: 'anywhere', hyphens: 'auto' } },
    'main table': { [TIGHT]: { tableLayout: 'fixed' } },
    '*:focus-visible': { outline: '3px solid', outlineColor: 'focus', outlineOffset: '2px' },
    ...choiceCards,
    'html[data-theme=night]': { colorScheme: 'dark' },
    // The browser's own calendar sign is white, which ends an hour of dark adaptation.
    '[data-theme=night] ::-webkit-calendar-picker-indicator': {
      filter: 'sepia(1) saturate(4) hue-rotate(-18deg) brightness(0.75)',
    },
    'html[data-theme=bench]': { colorScheme: 'light' },
    '*': {
      '@media (prefers-reduced-motion: reduce)': {
        animationDuration: '0s !important',
        transitionDuration: '0s !important',
      },
    },
  },
  theme: {
    breakpoints: { sm: '480px', md: '768px', lg: '1024px', xl: '1280px' },
    tokens: {
      fonts: {
        body: {
          value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
        },
      },
      // In em: a note inside a heading is a note of that heading.
      fontSizes: {
        fine: { value: '0.86em' },
        small: { value: '0.92em' },
        lead: { value: '1.08em' },
        large: { value: '1.25em' },
        larger: { value: '1.5em' },
        figure: { value: '1.85em' },
      },
      fontWeights: {
        medium: { value: '500' },
        semibold: { value: '650' },
        bold: { value: '750' },
        heavy: { value: '800' },
      },
      // What a thumb in a glove hits.
      sizes: { thumb: { value: '3rem' }, thumbSmall: { value: '2.75rem' } },
      radii: { small: { value: '4px' }, tray: { value: '14px' } },
      spacing: Object.fromEntries(
        [0, 1, 2, 3, 4, 5, 6, 8, 10, 12, 16, 20].map((n) => [n, { value: `${n * 4}px` }]),
      ),
    },
    semanticTokens: {
      colors: {
        paper: pair(PAPER.bench, PAPER.night),
        sheet: pair('#F8FAFB', '#150D09'),
        // Under photos by torch: black in the night room, so that nothing outshines them.
        plate: pair('#F8FAFB', '#000000'),
        ink: pair('#15212B', '#E3966A'),
        soft: pair('#485661', '#B37350'),
        line: pair('#BCC7CF', '#402619'),
        faint: pair('#DCE3E8', '#22140D'),
        focus: pair('#15212B', '#F4B45E'),
        yolk: pair('#F0B429', '#D98A1C'),
        yolkInk: pair('#7A4A00', '#F4B45E'),
        onYolk: pair('#231600', '#180A00'),
        vessel: pair('#A3162E', '#FF7A66'),
        vesselSoft: pair('#F4DDE0', '#361210'),
        sound: pair('#0B6470', '#6FA8A0'),
        shell: pair('#FFFDF8', '#2C1A11'),
        shellShade: pair('#DAD5C8', '#160C07'),
        shellInk: pair('#2B241B', '#E3966A'),
        yellowed: pair('#EBDCA0', '#4A3A16'),
        stain: pair('#C9B187', '#4E3216'),
        window: pair('#D7E3EA', '#5B4030'),
        mould: pair('#4F6152', '#B9A07A'),
        glow: pair('#F3B49B', '#5A2213'),
        embryo: pair('#C2513F', '#D8593C'),
        body: pair('#7C3B31', '#1C0B06'),
        tray: pair('#E2E7EA', '#120B08'),
        grain: pair('#C3B99F', '#3A281B'),
        cold2: pair('#3E6C93', '#5F86A3'),
        cold1: pair('#8FB0C6', '#3E5566'),
        mild: pair('#C9CFC8', '#5A3A27'),
        warm1: pair('#D9A77E', '#9A552B'),
        warm2: pair('#B4492F', '#E0603A'),
        plume: pair('#15212B', '#E3966A'),
        plume2: pair('#7A4A00', '#F4B45E'),
      },
    },
    recipes,
    slotRecipes,
  },
})

function pair(bench: string, night: string) {
  return { value: { base: bench, _night: night } }
}

export const system = createSystem(defaultBaseConfig, config)
