import { say } from './notices';
import { words } from './words';

/** The first drawing must not wait for what is fetched to work without the server later, in ms. */
const LATER = 6000;

/** Keeps the application for use without its server, once the page has been at rest for a while. */
export function keepForOffline(): void {
  if (process.env.NODE_ENV !== 'production' || typeof navigator === 'undefined' || !('serviceWorker' in navigator)) return;
  const { serviceWorker } = navigator;
  setTimeout(() => {
    void serviceWorker.register('/sw.js').then(
      // Nothing comes where service workers are blocked.
      (registration: ServiceWorkerRegistration | undefined) => {
        registration?.addEventListener('updatefound', () => {
          const { installing } = registration;
          installing?.addEventListener('statechange', () => {
            if (installing.state === 'installed' && serviceWorker.controller) say(words.offline.newVersion);
          });
        });
      },
      () => undefined,
    );
  }, LATER);
}
