import { answer, api, Problem } from '@/shared/api/client'

export type PhoneTarget = { url: string; phone_key: string; secret: string }

/** Lets this browser show what the house sends, and tells where it is sent; Problem where it does not. */
export async function subscribe(): Promise<PhoneTarget> {
  if (!('serviceWorker' in navigator) || !('PushManager' in window)) {
    throw refused(
      'This browser takes no messages here. Open the house by https; on an iPhone or iPad put it on the home screen first.',
    )
  }
  if ((await Notification.requestPermission()) !== 'granted') {
    throw refused('Notifications are not allowed here: allow them in the settings of the browser.')
  }
  const { key } = await answer(api.POST('/api/messengers/push-key'))
  const worker = await navigator.serviceWorker.ready
  const made = await worker.pushManager
    .subscribe({ userVisibleOnly: true, applicationServerKey: key })
    .catch((error: Error) => {
      throw refused(`The push service of this browser did not answer: ${error.message}`)
    })
  const { endpoint, keys } = made.toJSON()
  if (!endpoint || !keys?.p256dh || !keys.auth) {
    throw refused('This browser did not say where it takes messages.')
  }
  return { url: endpoint, phone_key: keys.p256dh, secret: keys.auth }
}

function refused(words: string): Problem {
  return new Problem(words, 0, [{ field: 'name', reason: words }])
}
