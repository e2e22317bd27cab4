import type { Page } from '@playwright/test';

/** Gives the piece on the bench a name: the quickest change there is. */
export const rename = async (page: Page, name: string) => {
  await page.getByRole('button', { name: /, rename$/ }).click();
  await page.getByRole('textbox', { name: 'Name of the piece' }).fill(name);
  await page.getByRole('textbox', { name: 'Name of the piece' }).press('Enter');
};

/** Drops the headers that isolate a page, as a careless proxy does. */
export const dropIsolation = (page: Page) =>
  page.route('**/*', async (route) => {
    const response = await route.fetch();
    const headers = { ...response.headers() };
    delete headers['cross-origin-opener-policy'];
    delete headers['cross-origin-embedder-policy'];
    await route.fulfill({ response, headers });
  });

/** Fills the store until it takes no more, by records of falling size. */
export const fillStore = (page: Page) =>
  page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>(
      (resolve) => (indexedDB.open('dermatex').onsuccess = (e) => resolve((e.target as IDBOpenDBRequest).result)),
    );
    for (let n = 400_000; n > 100;) {
      const took = await new Promise<boolean>((resolve) => {
        const write = db.transaction('entries', 'readwrite');
        const noise = Array.from({ length: n }, () => String.fromCharCode(33 + Math.random() * 90)).join('');
        write.objectStore('entries').put(noise, `noise:${Math.random()}`);
        write.oncomplete = () => resolve(true);
        write.onabort = () => resolve(false);
      });
      if (!took) n = Math.floor(n / 2);
    }
    db.close();
  });
