/** What is said in passing; how it is shown is fetched once a page is drawn. */
async function say(toast: Parameters<typeof import('./toaster').toaster.create>[0]) {
  const { mounted, toaster } = await import('./toaster')
  await mounted
  toaster.create(toast)
}

/** Says what was recorded, with its undo beside it. */
export function showAct(summary: string, undo: () => void, label = 'Undo') {
  void say({ title: summary, duration: 9000, action: { label, onClick: undo } })
}

export function showProblem(text: string) {
  void say({ title: text, type: 'error', duration: 12000 })
}
