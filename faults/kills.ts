import type { BrowserContext, Page } from '@playwright/test';
import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { drawn, home, isKept, launch, openSample, storedNames, withPage } from './browser';
import { rename } from './pageFaults';
import { tally, type Tally } from './tally';

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
          await isKept(page);
          if (!(await storedNames(page)).includes(`Edit ${i}`)) throw new Error('the edit is not in the store');
        },
      ]),
    );
  });
}

/** Most of the work that may be gone after a kill, in ms. */
const MOST_LOST = 2000;

/** What else goes on when the browser dies; none of it is waited for. */
const besides: ((page: Page) => Promise<void>)[] = [
  () => Promise.resolve(),
  (page) => begun(page.evaluate(() => globalThis.dermatexPieces.getState().duplicate(location.pathname.split('/')[2]))),
  (page) =>
    begun(
      page.evaluate(async () => {
        const picture = Object.assign(document.createElement('canvas'), { width: 1500, height: 1000 });
        picture.getContext('2d')!.fillRect(Math.random() * 900, 100, 400, 700);
        const blob = await new Promise<Blob | null>((resolve) => picture.toBlob(resolve, 'image/jpeg'));
        await globalThis.dermatexPieces.getState().create(blob as Blob, 'Brought in.jpg');
      }),
    ),
  async (page) => {
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    await page.getByRole('button', { name: 'Save the picture' }).click();
    await page.waitForTimeout(300);
    await page.getByRole('button', { name: 'Back to the bench' }).click();
  },
];
/** Starts work without waiting for it; it ends with the browser. */
const begun = async (work: Promise<unknown>) => void work.catch(() => undefined);

/**
 * The browser killed at a random moment while it edits, copies, imports or exports: afterwards its piece opens and little is gone; in the end every
 * piece opens.
 */
export async function browserKills(count: number, random: () => number): Promise<Tally[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-kills-'));
  let worst = 0;
  /** When an edit was done, by the number in its name. */
  const names = new Map<number, number>();
  const started = async () => {
    const context = await launch(folder);
    const page = context.pages()[0] ?? (await context.newPage());
    page.setDefaultTimeout(20_000);
    return { context, page };
  };
  // The browser in which one kill is checked is the one that is killed next.
  let now = await started();
  await openSample(now.page);
  const result = await tally(
    'the browser killed while it works',
    Array.from({ length: count }, (_, i) => [
      `kill ${i}`,
      async () => {
        const edits: number[] = [];
        let killedAt = 0;
        try {
          // A try that failed may have left it elsewhere.
          if (!/\/piece\/[^/]+$/.test(now.page.url())) {
            await now.page.goto(home);
            await now.page.getByTestId('piece-card').first().click();
            await drawn(now.page);
          }
          // Renamed by the time, faster than a hand could, until it dies; sometimes beside a copy, an import or an export.
          const end = Date.now() + 300 + random() * 2500;
          await besides[Math.floor(random() * besides.length)](now.page);
          while (Date.now() < end) {
            const time = Date.now();
            await rename(now.page, `At ${time}`);
            edits.push(Date.now());
            names.set(time, Date.now());
            await now.page.waitForTimeout(40);
          }
        } finally {
          killedAt = Date.now();
          await kill(now.context, folder);
          now = await started();
        }
        const { page } = now;
        await page.goto(home);
        await page.getByTestId('piece-card').first().waitFor();
        const stored = (await storedNames(page)).map((name) => names.get(Number(/At (\d+)/.exec(name)?.[1])) ?? 0);
        // The first edit that is gone tells how much work is.
        const gone = edits.find((time) => time > Math.max(...stored));
        const lost = gone === undefined ? 0 : killedAt - gone;
        worst = Math.max(worst, lost);
        await page.getByTestId('piece-card').first().click();
        await drawn(page);
        if (lost > MOST_LOST) throw new Error(`${lost} ms of work are gone`);
      },
    ]),
  );
  await now.context.close();
  return [{ ...result, name: `${result.name} (at most ${worst} ms gone)` }, await everyPieceOpens(folder)];
}

async function everyPieceOpens(folder: string): Promise<Tally> {
  const context = await launch(folder);
  const page = context.pages()[0] ?? (await context.newPage());
  await page.goto(home);
  await page.getByTestId('piece-card').first().waitFor();
  const pieces = await page.evaluate(() => globalThis.dermatexPieces.getState().cards?.map(({ id }) => id) ?? []);
  const result = await tally(
    'pieces that open after the kills',
    pieces.map((id): [string, () => Promise<void>] => [
      id,
      async () => {
        await page.goto(`${home}piece/${id}`);
        await drawn(page);
      },
    ]),
  );
  await context.close();
  return result;
}

/** Ends a browser as a crash or a power cut would. */
async function kill(context: BrowserContext, folder: string): Promise<void> {
  const gone = new Promise((resolve) => context.on('close', resolve));
  const killer = spawn('pkill', ['-9', '-f', folder]);
  await new Promise((resolve) => killer.on('close', resolve));
  await Promise.race([gone, new Promise((resolve) => setTimeout(resolve, 3000))]);
}
