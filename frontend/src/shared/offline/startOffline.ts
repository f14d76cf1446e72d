import { under } from '@/shared/api/under'

/**
 * Keeps the application and what was read last on the device, so that a round goes on where the
 * network does not reach. Browsers allow it on this machine and over https only; without it
 * everything works as long as the house answers. A newer application takes the page over at once.
 */
export async function startOffline() {
  if (!('serviceWorker' in navigator) || import.meta.env.DEV) return
  // Not among what a page needs first.
  const { Workbox } = await import('workbox-window')
  const worker = new Workbox(under('/sw.js'), { scope: under('/') })
  worker.addEventListener('activated', (event) => {
    if (event.isUpdate || event.isExternal) window.location.reload()
  })
  // A browser that was told to keep nothing refuses: that is the keeper's choice.
  await worker.register({ immediate: true }).catch(() => {})
}
