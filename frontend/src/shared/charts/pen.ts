import type uPlot from 'uplot'

/** Gives a colour token as the theme has it now: a canvas knows no CSS variables. */
export type Ink = (name: string) => string

/** What every chart draws with: the theme's colours and letters as large as the reader's text. */
export type Pen = {
  ink: Ink
  /** Height of letters, px. */
  letters: number
  font: string
  axis: Pick<uPlot.Axis, 'stroke' | 'font' | 'grid' | 'ticks'>
}

/** Returns the pen for charts inside `host`, by its colours and its text. */
export function penOf(host: HTMLElement): Pen {
  const style = getComputedStyle(host)
  const ink = (name: string) => style.getPropertyValue(`--sb-colors-${name}`).trim()
  const letters = Math.round(0.9 * Number.parseFloat(style.fontSize))
  const font = `${letters}px ${style.fontFamily}`
  return {
    ink,
    letters,
    font,
    axis: {
      stroke: ink('soft'),
      font,
      grid: { stroke: ink('line'), width: 1 },
      ticks: { show: false },
    },
  }
}

/** How many px so many rem are for this reader. */
export function pxOfRem(rem: number): number {
  return Math.round(rem * Number.parseFloat(getComputedStyle(document.documentElement).fontSize))
}

/** Draws inside the plot's own box, in pixels of the device, with letters of that pen. */
export function inPlot(plot: uPlot, pen: Pen, draw: (ctx: CanvasRenderingContext2D) => void) {
  const { ctx, bbox } = plot
  ctx.save()
  ctx.beginPath()
  ctx.rect(bbox.left, bbox.top, bbox.width, bbox.height)
  ctx.clip()
  ctx.font = pen.font.replace(/^\d+/, String(pen.letters * devicePixelRatio))
  // The axes leave their own alignment behind.
  ctx.textAlign = 'left'
  ctx.textBaseline = 'alphabetic'
  draw(ctx)
  ctx.restore()
}
