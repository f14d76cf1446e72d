import { registerSW } from 'virtual:pwa-register'

/**
 * Keeps the application and what was read last on the device, so that a round goes on where the
 * network does not reach. Browsers allow it on this machine and over https only; without it
 * everything works as long as the house answers.
 */
export function startOffline() {
  if ('serviceWorker' in navigator) registerSW({ immediate: true })
}
