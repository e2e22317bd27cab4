import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Engine } from '../src/engine/engine';
import type { usePieces } from '../src/store/pieces';
import { chromiumOptions } from '../scripts/chromium.mjs';
import { serve } from '../scripts/serve.mjs';

const PORT = 4387;
export const home = `http://localhost:${PORT}/`;

declare global {
  var dermatexPieces: typeof usePieces;
  var dermatexEngine: Engine;
}

/** The built page's server, for as long as the work takes. */
export async function served<T>(work: () => Promise<T>): Promise<T> {
  const stop = await serve(PORT);
  try {
    return await work();
  } finally {
    stop();
  }
}

/** A browser with its own profile folder, so that what it stores survives when it is killed. */
export const launch = (folder: string): Promise<BrowserContext> =>
  chromium.launchPersistentContext(folder, { ...chromiumOptions, viewport: { width: 900, height: 700 } });

/** Work in a page of a new browser. */
export async function withPage<T>(work: (page: Page, context: BrowserContext) => Promise<T>): Promise<T> {
  const context = await launch(mkdtempSync(path.join(os.tmpdir(), 'dermatex-browser-')));
  try {
    const page = context.pages()[0] ?? (await context.newPage());
    page.setDefaultTimeout(20_000);
    return await work(page, context);
  } finally {
    await context.close();
  }
}

export const openSample = async (page: Page) => {
  await page.goto(home);
  await page.getByRole('button', { name: /^Open the sample The old keeper/ }).click();
  await drawn(page);
};
export const drawn = (page: Page) => page.waitForSelector('canvas[data-drawn="fine"]', { timeout: 30_000 });
export const storedNames = (page: Page) =>
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
export const isBlank = (page: Page) => page.evaluate(() => document.body.innerText.trim().length < 10);
/** Waits until the last change is in the store: a change waits half a second, and then says so. */
export const isKept = async (page: Page) => {
  await page.waitForTimeout(700);
  await page.waitForFunction(() => document.body.innerText.includes('Saved'), undefined, { timeout: 15_000 });
};
