import type { Page } from '@playwright/test';
import type { Engine } from '../src/engine/engine';
import type { Find, FinderInput } from '../src/engine/guards';
import { coatSchema } from '../src/core/piece/schema';
import { open, withPage } from './page';
import { line, spin } from './probe';

const ready = async (page: Page) => {
  await open(page);
  await page.waitForSelector('canvas[data-drawn="fine"]');
  await page.waitForTimeout(3000);
};

type Holder = { dermatexEngine: Engine };

/** Faces and people on the sample portrait of 1.8 megapixels: cold (models and worker loaded), warm, and the longest time the page stood still. */
export async function finding(): Promise<void> {
  await withPage(async (page) => {
    await ready(page);
    const probe = spin();
    const { cold, warm, longest } = await page.evaluate(async () => {
      const holder = globalThis as unknown as Holder;
      let last = performance.now();
      let longest = 0;
      let watching = true;
      const watch = () => {
        const now = performance.now();
        longest = Math.max(longest, now - last);
        last = now;
        if (watching) setTimeout(watch, 0);
      };
      const find = [...document.querySelectorAll<HTMLElement>('[role="tab"]')].find((t) => t.textContent === 'Guards');
      find?.click();
      await new Promise((r) => setTimeout(r, 500));
      const act = [...document.querySelectorAll<HTMLElement>('button, [role="button"]')].find((b) => b.textContent?.includes('Find faces'));
      last = performance.now();
      const start = performance.now();
      watch();
      act?.click();
      // Found, measured, and the picture drawn with the guards on it.
      while (!document.querySelector('[data-testid="region-eyes"]')) await new Promise((r) => setTimeout(r, 2));
      await nextFrame();
      const cold = performance.now() - start;
      watching = false;
      // Once more on the same photo, with nothing kept but the models.
      const { guards } = holder.dermatexEngine;
      const inner = guards as unknown as {
        look: Find;
        input(ref: { key: string }): Promise<FinderInput>;
        findings: Map<string, unknown>;
        measured: Map<string, unknown>;
      };
      const [key] = inner.findings.keys() as unknown as string[];
      const times: number[] = [];
      for (let i = 0; i < 3; i++) {
        const t = performance.now();
        // Under another name, since what was found on a photo is kept.
        await inner.look(`again-${i}`, () => inner.input({ key }), {});
        inner.measured.clear();
        await guards.regions({ photo: { key } as never, guards: undefined });
        times.push(performance.now() - t);
      }
      return { cold, warm: Math.min(...times), longest };
    });
    line('find on a portrait of 1.8 MP, cold, to the picture (goal 2500)', `${cold.toFixed(0)} ms`, probe);
    line('the same, warm (goal 600)', `${warm.toFixed(0)} ms`, probe);
    line('the longest that the page stood still meanwhile (goal 60)', `${longest.toFixed(0)} ms`, probe);
  });
}

/** What is kept of each region, measured at preview size after a change. */
export async function unchangedReadout(): Promise<void> {
  await withPage(async (page) => {
    await ready(page);
    await page.getByRole('tab', { name: 'Guards' }).click();
    await page.getByRole('button', { name: 'Find faces and people' }).click();
    await page.getByTestId('region-eyes').waitFor();
    await page.waitForTimeout(2500);
    const probe = spin();
    const coats = [
      coatSchema.parse({ id: 'a', source: { kind: 'material', id: 'paper.aged', seed: 3 }, blend: 'multiply', strength: 0.7 }),
      coatSchema.parse({ id: 'b', source: { kind: 'material', id: 'cracks.craquelure', seed: 2 }, blend: 'multiply', strength: 0.7 }),
    ];
    const times = await page.evaluate(async (list) => {
      const { dermatexEngine } = globalThis as unknown as Holder;
      const [key] = (dermatexEngine.guards as unknown as { findings: Map<string, unknown> }).findings.keys() as unknown as string[];
      const guards = { regions: {}, faces: {}, hints: [], hairs: [], kept: [], standsOut: false };
      const photo = { key, name: 'keeper.jpg', width: 1200, height: 1500 };
      const found: number[] = [];
      for (let i = 0; i < 14; i++) {
        const piece = { photo, strength: 1, guards, coats: [list[0], { ...list[1], strength: 0.3 + 0.05 * i }] };
        const start = performance.now();
        await dermatexEngine.unchanged.measure(piece, false);
        found.push(performance.now() - start);
      }
      return found.slice(4).sort((a, b) => a - b);
    }, coats);
    line('kept readout at preview size, median (goal 120)', `${times[times.length >> 1].toFixed(0)} ms`, probe);
  });
}

/** A scribble of so many points all over the picture: milliseconds of its last ones from the pointer's event to pixels on the canvas, sorted. */
const scribble = (page: Page, points: number) =>
  page.evaluate(async (count) => {
    const place = document.querySelector('[data-testid="picture"]') as HTMLElement;
    const box = (place.querySelector('canvas') as HTMLElement).getBoundingClientRect();
    const event = (type: string, i: number) => {
      const x = box.left + box.width * (0.5 + 0.45 * Math.sin(i * 0.037) * Math.cos(i * 0.00071));
      const y = box.top + box.height * (0.5 + 0.45 * Math.cos(i * 0.031));
      place.dispatchEvent(
        new PointerEvent(type, { bubbles: true, pointerId: 7, button: 0, buttons: 1, clientX: x, clientY: y, pointerType: 'mouse' }),
      );
    };
    place.setPointerCapture = () => undefined;
    event('pointerdown', 0);
    const found: number[] = [];
    let size = 0;
    const first = Math.max(1, count - 60);
    for (let i = 1; i < first; i++) event('pointermove', i);
    for (let i = first; i < first + 60; i++) {
      await new Promise((r) => setTimeout(r, 4));
      const start = performance.now();
      const frame = nextFrame();
      event('pointermove', i);
      size = await frame;
      found.push(performance.now() - start);
    }
    event('pointerup', first + 60);
    return { times: found.slice(5).sort((a, b) => a - b), size };
  }, points);

/** Short strokes here and there, as far across as this share of the picture: from each one's end to the pixels of a drawing that began after it. */
const endsOf = (page: Page, far: number) =>
  page.evaluate(async (far) => {
    const place = document.querySelector('[data-testid="picture"]') as HTMLElement;
    const box = (place.querySelector('canvas') as HTMLElement).getBoundingClientRect();
    const event = (type: string, x: number, y: number) =>
      place.dispatchEvent(
        new PointerEvent(type, {
          ...{ bubbles: true, pointerId: 7, button: 0, buttons: 1, pointerType: 'mouse' },
          clientX: box.left + box.width * x,
          clientY: box.top + box.height * y,
        }),
      );
    place.setPointerCapture = () => undefined;
    const found: number[] = [];
    for (let i = 0; i < 12; i++) {
      const [x, y] = [0.3 + 0.03 * i, 0.35 + 0.02 * (i % 5)];
      event('pointerdown', x, y);
      for (let k = 1; k <= 5; k++) {
        event('pointermove', x + (far * k) / 6, y);
        await new Promise((r) => setTimeout(r, 30));
      }
      // Nothing is being drawn any more: the next pixels are those of the end.
      await new Promise((r) => setTimeout(r, 250));
      const start = performance.now();
      const frame = nextFrame();
      event('pointermove', x + far, y);
      event('pointerup', x + far, y);
      await frame;
      found.push(performance.now() - start);
      await new Promise((r) => setTimeout(r, 500));
    }
    return found.sort((a, b) => a - b);
  }, far);

const median = (times: number[]) => `${times[times.length >> 1].toFixed(0)} ms`;

/** A stroke on a mask, of marks and on a guard, each short and after ten thousand points. */
export async function brush(): Promise<void> {
  await withPage(async (page) => {
    await ready(page);
    const measure = async (name: string, goal: string) => {
      await page.getByRole('switch', { name: 'Paint' }).click();
      const probe = spin();
      const short = await scribble(page, 60);
      line(`pointer to pixels of a stroke on ${name} at ${(short.size / 1e6).toFixed(2)} MP, median${goal}`, median(short.times), probe);
      await page.waitForTimeout(1500);
      line(`the same after ten thousand points${goal}`, median((await scribble(page, 10_000)).times), probe);
      await page.waitForTimeout(1500);
    };
    await page.getByRole('tab', { name: 'Mask' }).click();
    await page.waitForTimeout(1500);
    await measure('a mask', ' (goal 40)');
    const rail = page.getByRole('button', { name: 'Done' });
    if (await rail.isVisible()) await rail.click();
    await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
    await page.getByRole('button', { name: 'Other coats' }).click();
    await page.getByRole('button', { name: 'Marks', exact: true }).click();
    await page.waitForTimeout(1500);
    await measure('a coat of marks', ' (goal 33)');
    await page.getByRole('tab', { name: 'Guards' }).click();
    await page.getByRole('button', { name: /Find faces/ }).click();
    await page.getByTestId('region-eyes').click();
    await page.waitForTimeout(3000);
    await page.getByRole('switch', { name: 'Paint' }).click();
    for (const [name, does, end] of [
      ['a stroke that takes from the eyes', 'Erase', 0.06],
      ['a stroke that adds to them', 'Add', 0.06],
    ] as const) {
      await page.getByRole('radio', { name: does, exact: true }).click();
      await page.waitForTimeout(800);
      const probe = spin();
      const times = await endsOf(page, end);
      line(`from the end of ${name} to pixels (goal 100)`, median(times), probe);
    }
    await page.getByRole('switch', { name: 'Paint' }).click();
    await measure('a guard, to its edges', '');
  }, 2);
}
