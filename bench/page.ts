import { chromium, type Page } from '@playwright/test';
import { chromiumOptions } from '../scripts/chromium.mjs';
import { serve } from '../scripts/serve.mjs';
import type { useFrames } from '../src/store/frames';
import { line, spin } from './probe';

const port = 4391;

declare global {
  /** The page's store of what it has drawn (src/store/frames.ts). */
  var dermatexFrames: typeof useFrames;
  /** Pixels of the next drawing that reaches the canvas. */
  var nextFrame: () => Promise<number>;
}

/** The built page (npm run build or demo beforehand) in Chromium. */
export async function withPage(work: (page: Page) => Promise<void>, density = 1): Promise<void> {
  const stop = await serve(port);
  const browser = await chromium.launch(chromiumOptions);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, deviceScaleFactor: density, serviceWorkers: 'block' });
    await page.addInitScript(() => {
      globalThis.nextFrame = () =>
        new Promise((resolve) => {
          const off = globalThis.dermatexFrames.subscribe(({ frame }) => {
            if (!frame) return;
            off();
            resolve(frame.pixels);
          });
        });
    });
    await work(page);
  } finally {
    await browser.close();
    stop();
  }
}

export const open = async (page: Page) => {
  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('button', { name: 'Open the sample The old keeper' }).click();
  // The card as it was kept is shown until the engine has drawn.
  const kept = page.waitForFunction(() => (document.querySelector('[data-testid="kept-picture"]') as HTMLImageElement | null)?.complete);
  await Promise.race([kept, drawn(page)]);
};
/** Opens a photo from a file, and waits until it is drawn. */
export const openFile = async (page: Page, file: string) => {
  await page.goto(`http://localhost:${port}/`);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Open a photo' }).click();
  await (await chooser).setFiles(file);
  await drawn(page);
};
const drawn = (page: Page) =>
  page.waitForFunction(() => ((document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement | null)?.width ?? 0) > 1);

/** The top coat's strength dragged: from the slider's event to pixels on the canvas, at the size that is drawn while dragging. */
export async function drag(): Promise<void> {
  await withPage(async (page) => {
    await open(page);
    await page.waitForSelector('canvas[data-drawn="fine"]');
    await page.waitForTimeout(4000);
    await page.getByRole('tab', { name: 'Blend' }).click();
    await page.waitForTimeout(1500);
    const probe = spin();
    const { times, pixels } = await page.evaluate(async () => {
      const slider = document.querySelector('input[type="range"][aria-label="Strength"]') as HTMLInputElement;
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set;
      const found: number[] = [];
      let size = 0;
      slider.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
      for (let i = 0; i < 80; i++) {
        const start = performance.now();
        const frame = nextFrame();
        set?.call(slider, String(0.1 + 0.01 * i));
        slider.dispatchEvent(new Event('input', { bubbles: true }));
        size = await frame;
        found.push(performance.now() - start);
      }
      return { times: found.slice(5).sort((a, b) => a - b), pixels: size };
    });
    line(`top coat dragged at ${(pixels / 1e6).toFixed(2)} MP, median (goal 33)`, `${times[Math.floor(times.length / 2)].toFixed(1)} ms`, probe);
    line('the same, 95th percentile (goal 60)', `${times[Math.floor(times.length * 0.95)].toFixed(1)} ms`, probe);
    // A screen of double density, so that a drag has more pixels to draw than it may and takes its full 0.4 MP.
  }, 2);
}

/** An empty browser to the first picture on the bench, three times. */
export async function coldPage(): Promise<void> {
  const times: number[] = [];
  const engine: number[] = [];
  const probes: number[] = [];
  for (let i = 0; i < 3; i++) {
    await withPage(async (page) => {
      probes.push(spin());
      const start = performance.now();
      await open(page);
      times.push(performance.now() - start);
      await drawn(page);
      engine.push(performance.now() - start);
    });
  }
  const all = (list: number[]) =>
    list
      .sort((a, b) => a - b)
      .map((t) => t.toFixed(0))
      .join(', ');
  line('cold page to the first picture on the bench (goal 3000)', `${all(times)} ms`, Math.min(...probes));
  line('the same, to the first drawn by the engine', `${all(engine)} ms`, Math.min(...probes));
}

/** The contact sheet of all modes on the sample portrait: from the press to the last cell drawn. */
export async function contactSheet(): Promise<void> {
  await withPage(async (page) => {
    await open(page);
    await page.waitForSelector('canvas[data-drawn="fine"]');
    await page.waitForTimeout(3000);
    await page.getByRole('tab', { name: 'Blend' }).click();
    await page.waitForTimeout(1200);
    const probe = spin();
    const time = await page.evaluate(async () => {
      const named = [...document.querySelectorAll<HTMLElement>('button, [role="button"]')];
      const press = named.find((b) => b.textContent?.includes('Compare all modes'));
      if (!press) return NaN;
      const start = performance.now();
      press.click();
      while (performance.now() - start < 15000) {
        await new Promise(requestAnimationFrame);
        const cells = document.querySelectorAll('[data-cell]');
        if (cells.length >= 24 && [...cells].every((c) => c.hasAttribute('data-drawn'))) return performance.now() - start;
      }
      return NaN;
    });
    line('contact sheet of all 26 modes (goal 600)', `${time.toFixed(0)} ms`, probe);
  });
}

/** The looks on the sample portrait: from the press to pictures on the first 24 cards, small ones and fine ones, and when the tab is opened again. */
export async function looksSheet(): Promise<void> {
  await withPage(async (page) => {
    await page.setViewportSize({ width: 1600, height: 1800 });
    await open(page);
    await page.waitForSelector('canvas[data-drawn="fine"]');
    await page.waitForTimeout(3000);
    const sheet = async (fine: boolean) => {
      const probe = spin();
      await page.getByTestId('card-photo').click();
      const time = await page.getByRole('tab', { name: 'Presets', exact: true }).evaluate(async (tab: HTMLElement, wanted) => {
        const start = performance.now();
        const since: number[] = [];
        tab.click();
        while (since.length < (wanted ? 2 : 1) && performance.now() - start < 120_000) {
          await new Promise(requestAnimationFrame);
          if (document.querySelectorAll(`button[data-drawn${since.length === 1 ? '="fine"' : ''}]`).length >= 24)
            since.push(performance.now() - start);
        }
        return since;
      }, fine);
      await page.getByRole('tab', { name: 'Light', exact: true }).click();
      return { time, probe };
    };
    const [first, again] = [await sheet(true), await sheet(false)];
    line('24 looks on the photo, small, for the first time (goal 900)', `${first.time[0]?.toFixed(0)} ms`, first.probe);
    line('the same, finely', `${first.time[1]?.toFixed(0)} ms`, first.probe);
    line('the same, opened again (goal 900)', `${again.time[0]?.toFixed(0)} ms`, again.probe);
  });
}

/** The shelf: from its opening to all pictures of the first screenful, and the longest frame while it is scrolled to its end. */
export async function shelf(): Promise<void> {
  await withPage(async (page) => {
    await open(page);
    await page.waitForSelector('canvas[data-drawn="fine"]');
    await page.waitForTimeout(3000);
    await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
    await page.waitForTimeout(300);
    const probe = spin();
    const first = await page.evaluate(async () => {
      const press = [...document.querySelectorAll<HTMLElement>('button, [role="button"]')].find((b) => b.textContent === 'Open the shelf');
      const start = performance.now();
      press?.click();
      const made = (c: HTMLElement) => c.hasAttribute('data-made');
      for (;;) {
        await new Promise(requestAnimationFrame);
        const inView = [...document.querySelectorAll<HTMLElement>('[data-thumb]')].filter((c) => {
          const box = c.getBoundingClientRect();
          return location.pathname === '/materials' && box.top < innerHeight && box.bottom > 0 && box.width > 120;
        });
        if (inView.length >= 6 && inView.every(made)) return { time: performance.now() - start, count: inView.length };
        if (performance.now() - start > 30000) return { time: NaN, count: inView.length };
      }
    });
    line(`shelf: the first screenful of ${first.count} pictures (goal 700)`, `${first.time.toFixed(0)} ms`, probe);
    const longest = await page.evaluate(async () => {
      const scroller = [...document.querySelectorAll<HTMLElement>('div')]
        .filter((d) => d.scrollHeight > d.clientHeight + 400 && d.clientHeight > 300)
        .pop();
      let last = performance.now();
      let worst = 0;
      while (scroller && scroller.scrollTop + scroller.clientHeight < scroller.scrollHeight - 2) {
        scroller.scrollTop += 40;
        await new Promise(requestAnimationFrame);
        const now = performance.now();
        worst = Math.max(worst, now - last);
        last = now;
      }
      return worst;
    });
    line('shelf: the longest frame while scrolling (goal 100)', `${longest.toFixed(0)} ms`, probe);
  });
}
