// Beside the worker that keeps the application: shows an alarm that the house sends to this phone,
// and opens the application where it is tapped.
self.addEventListener('push', (event) => {
  const told = event.data?.json() ?? {}
  const shown = {
    body: told.text ?? '',
    icon: new URL('icon-192.png', self.registration.scope).href,
    // The same alarm told again takes the place of what it told before, and is heard again.
    tag: told.about ?? 'Sandboa',
    renotify: true,
    requireInteraction: true,
  }
  event.waitUntil(self.registration.showNotification(told.about ?? 'Sandboa', shown))
})

self.addEventListener('notificationclick', (event) => {
  event.notification.close()
  event.waitUntil(open())
})

async function open() {
  const pages = await self.clients.matchAll({ type: 'window' })
  const page = pages.find(({ url }) => url.startsWith(self.registration.scope))
  return page ? page.focus() : self.clients.openWindow(self.registration.scope)
}
