import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Engine } from '../src/engine/engine';
import type { usePieces } from '../src/store/pieces';
import { chromiumOptions } from '../scripts/chromium.mjs';
import { damagedPictures, formats } from './pictures';
import { expectSentence, tally, type Tally } from './tally';

const PORT = 4387;
const home = `http://localhost:${PORT}/`;

declare global {
  var dermatexPieces: typeof usePieces;
  var dermatexEngine: Engine;
}

/** The built page's server, for as long as the work takes. */
export async function served<T>(root: string, work: () => Promise<T>): Promise<T> {
  const server: ChildProcess = spawn(process.execPath, [path.join(root, 'build/server-main.mjs'), String(PORT)], {
    env: { ...process.env, DERMATEX_ROOT: root },
  });
  await new Promise((resolve) => server.stdout?.once('data', resolve));
  try {
    return await work();
  } finally {
    server.kill();
  }
}

/** A browser with its own profile folder, so that what it stores survives when it is killed. */
const launch = (folder: string): Promise<BrowserContext> =>
  chromium.launchPersistentContext(folder, { ...chromiumOptions, viewport: { width: 900, height: 700 } });

async function withPage<T>(work: (page: Page, context: BrowserContext) => Promise<T>): Promise<T> {
  const context = await launch(mkdtempSync(path.join(os.tmpdir(), 'dermatex-browser-')));
  try {
    const page = context.pages()[0] ?? (await context.newPage());
    page.setDefaultTimeout(20_000);
    return await work(page, context);
  } finally {
    await context.close();
  }
}

const openSample = async (page: Page) => {
  await page.goto(home);
  await page.getByRole('button', { name: /^Open the sample The old keeper/ }).click();
  await drawn(page);
};
const drawn = (page: Page) => page.waitForSelector('canvas[data-drawn="fine"]', { timeout: 30_000 });
const rename = async (page: Page, name: string) => {
  await page.getByRole('button', { name: /, rename$/ }).click();
  await page.getByRole('textbox', { name: 'Name of the piece' }).fill(name);
  await page.getByRole('textbox', { name: 'Name of the piece' }).press('Enter');
};
const storedNames = (page: Page) =>
  page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>(
      (resolve) => (indexedDB.open('dermatex').onsuccess = (e) => resolve((e.target as IDBOpenDBRequest).result)),
    );
    const all = await new Promise<string[]>((resolve) => {
      const names: string[] = [];
      db.transaction('entries').objectStore('entries').openCursor().onsuccess = (e) => {
        const cursor = (e.target as IDBRequest<IDBCursorWithValue | null>).result;
        if (!cursor) return resolve(names);
        if (String(cursor.key).startsWith('piece:')) names.push((JSON.parse(String(cursor.value)) as { name: string }).name);
        cursor.continue();
      };
    });
    db.close();
    return all;
  });
const isBlank = (page: Page) => page.evaluate(() => document.body.innerText.trim().length < 10);

/** Damaged pictures opened in the page: each becomes a piece, or is refused in one sentence. */
export function picturesInPage(count: number, random: () => number): Promise<Tally[]> {
  return withPage(async (page) => {
    await page.goto(home);
    await page.waitForFunction(() => globalThis.dermatexPieces?.getState().cards !== null);
    const tallies: Tally[] = [];
    for (const format of formats) {
      const list = await damagedPictures(format, count, random);
      tallies.push(
        await tally(
          `damaged ${format} pictures, page`,
          list.map(({ label, bytes }) => [
            label,
            async () => {
              const said = await page.evaluate(
                async ([base64, name]) => {
                  const blob = await (await fetch(`data:application/octet-stream;base64,${base64}`)).blob();
                  const { create, remove } = globalThis.dermatexPieces.getState();
                  try {
                    await remove(await create(blob, name));
                    return null;
                  } catch (error) {
                    return (error as Error).message;
                  }
                },
                [bytes.toString('base64'), `odd.${format}`] as const,
              );
              if (said !== null) expectSentence(said);
            },
          ]),
        ),
      );
    }
    return tallies;
  });
}

/** A worker killed at every edit: each edit is drawn and saved. */
export function workerKills(count: number, random: () => number): Promise<Tally> {
  return withPage(async (page) => {
    await openSample(page);
    return tally(
      'a worker killed at an edit',
      Array.from({ length: count }, (_, i) => [
        `edit ${i}`,
        async () => {
          const all = random() < 0.2;
          const which = Math.floor(random() * 8);
          await page.evaluate(
            ([every, k]) => {
              const { pool } = globalThis.dermatexEngine;
              for (let w = 0; w < pool.size; w++) if (every || w === Number(k) % pool.size) pool.kill(w);
            },
            [all, which] as const,
          );
          await rename(page, `Edit ${i}`);
          await page.getByRole('button', { name: 'Fit' }).click();
          await drawn(page);
          await page.waitForFunction(() => document.body.innerText.includes('Kept'), undefined, { timeout: 15_000 });
          if (!(await storedNames(page)).includes(`Edit ${i}`)) throw new Error('the edit is not in the store');
        },
      ]),
    );
  });
}

/** Most of the work that may be gone after a kill, in ms. */
const MOST_LOST = 2000;

/** The browser killed at a random moment while it edits: afterwards all pieces open, and little is gone. */
export async function browserKills(count: number, random: () => number): Promise<Tally> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-kills-'));
  let worst = 0;
  /** When an edit was done, by the number in its name. */
  const names = new Map<number, number>();
  const result = await tally(
    'the browser killed while it works',
    Array.from({ length: count }, (_, i) => [
      `kill ${i}`,
      async () => {
        const context = await launch(folder);
        const page = context.pages()[0] ?? (await context.newPage());
        page.setDefaultTimeout(20_000);
        if (i === 0) await openSample(page);
        else {
          await page.goto(home);
          await page.getByTestId('piece-card').first().click();
          await drawn(page);
        }
        // Renamed by the time, faster than a hand could, until it dies; sometimes a copy or another photo is made meanwhile.
        const end = Date.now() + 300 + random() * 2500;
        const edits: number[] = [];
        if (random() < 0.3)
          void page.evaluate(() => void globalThis.dermatexPieces.getState().duplicate(location.pathname.split('/')[2])).catch(() => undefined);
        while (Date.now() < end) {
          const now = Date.now();
          await rename(page, `At ${now}`);
          edits.push(Date.now());
          names.set(now, Date.now());
          await page.waitForTimeout(40);
        }
        const killed = Date.now();
        await kill(context, folder);
        const again = await launch(folder);
        const reopened = again.pages()[0] ?? (await again.newPage());
        reopened.setDefaultTimeout(20_000);
        try {
          await reopened.goto(home);
          await reopened.getByTestId('piece-card').first().waitFor();
          const stored = (await storedNames(reopened)).map((name) => names.get(Number(/At (\d+)/.exec(name)?.[1])) ?? 0);
          // The first edit that is gone tells how much work is.
          const gone = edits.find((time) => time > Math.max(...stored));
          const lost = gone === undefined ? 0 : killed - gone;
          worst = Math.max(worst, lost);
          if (lost > MOST_LOST) throw new Error(`${lost} ms of work are gone`);
          await reopened.getByTestId('piece-card').first().click();
          await drawn(reopened);
        } finally {
          await again.close();
        }
      },
    ]),
  );
  return { ...result, name: `${result.name} (at most ${worst} ms gone)` };
}

/** Ends a browser as a crash or a power cut would. */
async function kill(context: BrowserContext, folder: string): Promise<void> {
  const gone = new Promise((resolve) => context.on('close', resolve));
  const killer = spawn('pkill', ['-9', '-f', folder]);
  await new Promise((resolve) => killer.on('close', resolve));
  await Promise.race([gone, new Promise((resolve) => setTimeout(resolve, 3000))]);
}

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

/** Files of the application that do not come: one sentence, the list stays, nothing hangs. */
export function missingFiles(): Promise<Tally> {
  const files = ['**/engine.worker.js', '**/kernels-shared.wasm', '**/kernels*.wasm', '**/finder*.js', '**/models/**'];
  return tally(
    'files of the application that are missing',
    files.map((pattern): [string, () => Promise<void>] => [
      pattern,
      () =>
        withPage(async (page) => {
          await page.route(pattern, (route) => route.fulfill({ status: 404, body: 'gone' }));
          await page.goto(home);
          await page.getByRole('button', { name: /^Open the sample The old keeper/ }).click();
          await page.waitForURL(/\/piece\//);
          await page.waitForFunction(
            () => document.querySelector('canvas[data-drawn="fine"]') !== null || document.querySelector('[role="alert"]') !== null,
            undefined,
            {
              timeout: 30_000,
            },
          );
          const alert = page.getByRole('alert').first();
          if ((await alert.count()) > 0) expectSentence((await alert.innerText()).replace(/\s*(Put away|Undo)\s*$/, ''));
          await rename(page, 'Kept all the same');
          await page.waitForTimeout(2500);
          if (!(await storedNames(page)).includes('Kept all the same')) throw new Error('the work is not saved');
        }),
    ]),
  );
}
