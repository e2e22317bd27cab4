import { home, isKept, openSample, storedNames, withPage } from './browser';
import { dropIsolation, rename } from './pageFaults';
import { damagedPictures, formats } from './pictures';
import { expectSentence, tally, type Tally } from './tally';

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
          if ((await alert.count()) > 0) expectSentence((await alert.innerText()).replace(/\s*(Dismiss|Undo)\s*$/, ''));
          await rename(page, 'Kept all the same');
          await page.waitForTimeout(2500);
          if (!(await storedNames(page)).includes('Kept all the same')) throw new Error('the work is not saved');
        }),
    ]),
  );
}

/** A page that the server does not isolate, as behind a proxy that drops headers: it draws with private memory, and saves. */
export function withoutIsolation(): Promise<Tally> {
  return tally('a page without isolation', [
    [
      'headers dropped',
      () =>
        withPage(async (page) => {
          await dropIsolation(page);
          await openSample(page);
          if (await page.evaluate(() => crossOriginIsolated)) throw new Error('the page is isolated after all');
          if (await page.getByRole('alert').count()) throw new Error('it complains');
          await rename(page, 'Not isolated');
          await isKept(page);
          if (!(await storedNames(page)).includes('Not isolated')) throw new Error('the work is not saved');
        }),
    ],
  ]);
}
