/**
 * Called when a form is sent; the function it returns says, when the answer comes, whether
 * the keeper is still where they sent it. Who types in another field by then keeps the
 * focus: moved, it would put the next digits into the wrong field.
 */
export function stillThere(): () => boolean {
  const sentFrom = document.activeElement
  return () => {
    const now = document.activeElement
    return now === sentFrom || !now?.matches('input, select, textarea')
  }
}
