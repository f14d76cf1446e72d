/** ms between two readings of a page while the house tells what changed, and while it does not. */
const TOLD_MS = 600_000
const UNTOLD_MS = 60_000

let followed = false
let ownAct = 0

/** Says whether the house tells this page of changes, by the stream it follows. */
export function follow(told: boolean) {
  followed = told
}

/** How long what a page shows may stand before it is asked for again. */
export const askedAgainMs = () => (followed ? TOLD_MS : UNTOLD_MS)

/** Notes an act of this page's own, which has read everything again already. */
export function noteOwn(act: number) {
  ownAct = Math.max(ownAct, act)
}

/** Whether the latest act is this page's own. */
export const isOwn = (act: number) => act === ownAct
