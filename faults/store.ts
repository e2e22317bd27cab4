import type { Page } from '@playwright/test';
import { drawn, home, isBlank, isKept, openSample, storedNames, withPage } from './browser';
import { fillStore, rename } from './pageFaults';
import { tally, type Tally } from './tally';

/** Every kind of record damaged in every way: the list opens, and what is whole opens. */
export function damagedStore(): Promise<Tally> {
  return withPage(async (page) => {
    await openSample(page);
    await page.goto(home);
    await page.getByTestId('piece-card').first().waitFor();
    const kinds = ['piece:', 'card:', 'history:', 'own', 'shelf', 'starts', 'finding:', 'cards'];
    const texts = ['', 'null', '[]', '{}', '{"dermatex":', '7', '"x"', '[null]', '{"dermatex":9,"name":"Later"}', '\u0000'];
    return tally(
      'damaged records of the store',
      kinds.flatMap((kind) =>
        texts.map((text): [string, () => Promise<void>] => [
          `${kind} = ${text}`,
          async () => {
            const put = (value: string) =>
              page.evaluate(
                async ([prefix, damage]) => {
                  const db = await new Promise<IDBDatabase>(
                    (resolve) => (indexedDB.open('dermatex').onsuccess = (e) => resolve((e.target as IDBOpenDBRequest).result)),
                  );
                  const write = db.transaction('entries', 'readwrite');
                  const store = write.objectStore('entries');
                  store.getAllKeys().onsuccess = (e) => {
                    const keys = (e.target as IDBRequest<IDBValidKey[]>).result.map(String);
                    store.put(damage, keys.find((k) => k.startsWith(prefix)) ?? prefix);
                  };
                  await new Promise((resolve) => (write.oncomplete = resolve));
                  db.close();
                },
                [kind, value] as const,
              );
            await put(text);
            await page.goto(home);
            await page.getByRole('button', { name: /Open a photo/ }).waitFor();
            if (await isBlank(page)) throw new Error('the list is blank');
            const card = page.getByTestId('piece-card').first();
            if ((await card.count()) > 0) {
              await card.click();
              await page.waitForFunction(
                () => document.querySelector('canvas[data-drawn="fine"]') !== null || document.querySelector('[role="alert"]') !== null,
                undefined,
                {
                  timeout: 20_000,
                },
              );
            }
            // Whole again for the next.
            await page.goto(home);
            await page.evaluate(() => new Promise((resolve) => (indexedDB.deleteDatabase('dermatex').onsuccess = resolve)).catch(() => undefined));
            await openSample(page);
            await page.goto(home);
            await page.getByTestId('piece-card').first().waitFor();
          },
        ]),
      ),
    );
  });
}

const stored = async (page: Page, name: string) => {
  if (!(await storedNames(page)).includes(name)) throw new Error(`“${name}” is not in the store`);
};

/** A store that is full: said, the work stays in memory, and it is saved once there is room. */
export function fullStore(count: number, random: () => number): Promise<Tally> {
  return tally(
    'a full store',
    Array.from({ length: count }, (_, i): [string, () => Promise<void>] => [
      `round ${i}`,
      () =>
        withPage(async (page, context) => {
          const cdp = await context.newCDPSession(page);
          await cdp.send('Storage.overrideQuotaForOrigin', { origin: new URL(home).origin, quotaSize: 4e6 + random() * 4e6 });
          await openSample(page);
          await isKept(page);
          await fillStore(page);
          for (let edit = 0; edit < 3; edit++) await rename(page, `Too much ${edit}`);
          await page.getByText(/Not saved: it needs/).waitFor();
          await cdp.send('Storage.overrideQuotaForOrigin', { origin: new URL(home).origin });
          await rename(page, 'There is room again');
          await page.getByTestId('save-banner').waitFor({ state: 'hidden' });
          await isKept(page);
          await stored(page, 'There is room again');
        }),
    ]),
  );
}

/** Two tabs on one piece that take it over from each other: the last name given by the one that works is what is stored, and both show it. */
export function twoTabs(count: number, random: () => number): Promise<Tally> {
  return withPage(async (page, context) => {
    await openSample(page);
    await isKept(page);
    const other = await context.newPage();
    other.setDefaultTimeout(20_000);
    await other.goto(page.url());
    await other.getByRole('button', { name: 'Work here' }).waitFor();
    let [works, follows] = [page, other];
    return tally(
      'two tabs on one piece',
      Array.from({ length: count }, (_, i): [string, () => Promise<void>] => [
        `round ${i}`,
        async () => {
          if (random() < 0.5) {
            await follows.bringToFront();
            await follows.getByRole('button', { name: 'Work here' }).click();
            [works, follows] = [follows, works];
            await works.getByTestId('save-banner').waitFor({ state: 'hidden' });
          }
          await works.bringToFront();
          const copies = random() < 0.3 ? 2 : 0;
          const before = (await storedNames(works)).length;
          await rename(works, `Round ${i}`);
          await Promise.all(
            [works, follows]
              .slice(0, copies)
              .map((tab) => tab.evaluate(() => globalThis.dermatexPieces.getState().duplicate(location.pathname.split('/')[2]))),
          );
          await follows.getByRole('button', { name: `Round ${i}, rename`, exact: true }).waitFor();
          await isKept(works);
          await stored(works, `Round ${i}`);
          if ((await storedNames(works)).length !== before + copies) throw new Error('a copy is not in the store');
        },
      ]),
    );
  });
}

/** Site data cleared while the bench is open: the next change brings all of it back, and it opens after a reload. */
export function clearedStore(count: number): Promise<Tally> {
  return withPage(async (page, context) => {
    await openSample(page);
    await isKept(page);
    const cdp = await context.newCDPSession(page);
    return tally(
      'site data cleared while the bench is open',
      Array.from({ length: count }, (_, i): [string, () => Promise<void>] => [
        `round ${i}`,
        async () => {
          await cdp.send('Storage.clearDataForOrigin', { origin: new URL(home).origin, storageTypes: 'indexeddb' });
          await rename(page, `After ${i}`);
          await isKept(page);
          await stored(page, `After ${i}`);
          await page.reload();
          await page.getByRole('button', { name: `After ${i}, rename`, exact: true }).waitFor();
          await drawn(page);
        },
      ]),
    );
  });
}
