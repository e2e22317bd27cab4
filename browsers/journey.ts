import type { Driver, Point } from './drivers';

/** Times of a journey in ms, and what it ended with. */
export interface Journey {
  isIsolated: boolean;
  isShared: boolean;
  /** From the press to the first picture that the engine drew. */
  first: number;
  /** A material chosen to the picture as fine as the screen. */
  material: number;
  /** One step of a dragged strength, median and 95th percentile. */
  drag: number;
  dragSlow: number;
  stroke: number;
  faces: number;
  undo: number;
  exported: number;
  reload: number;
  /** Size of the exported file, and the mean red, green and blue of its lowest part, where nothing was painted. */
  size: string;
  mean: number[];
}

/** Functions of the page that the steps below use. */
const TOOLS = `
  const canvas = () => document.querySelector('[data-testid="picture"] canvas');
  const until = (test, limit = 90000) => new Promise((resolve, reject) => {
    const start = performance.now();
    const look = () => {
      const found = test();
      if (found) return resolve(found);
      if (performance.now() - start > limit) return reject(new Error('Waited in vain for ' + test + '; the page says: ' + document.body.innerText.slice(0, 300)));
      setTimeout(look, 4);
    };
    look();
  });
  const fine = () => until(() => canvas() && canvas().width > 1 && canvas().dataset.drawn === 'fine');
  const rested = async () => { for (let i = 0; i < 3; i++) { await fine(); await new Promise((r) => setTimeout(r, 60)); } };
  const nameOf = (e) => (e.getAttribute('aria-label') || e.innerText || '').replace(/[\\ue000-\\uf8ff]|[\\u{f0000}-\\u{fffff}]/gu, '').trim();
  const named = (name) => {
    const all = [...document.querySelectorAll('button, [role="button"], [role="tab"], [role="radio"], [role="switch"], input')].filter((e) => e.offsetParent !== null);
    return all.find((e) => nameOf(e) === name) || all.find((e) => nameOf(e).startsWith(name));
  };
  if (!globalThis.pressedAt) addEventListener('pointerdown', () => (globalThis.pressedAt = performance.now()), true);
  const since = () => performance.now() - pressedAt;
`;
const step = <T>(driver: Driver, body: string, input?: unknown) => driver.run<T>(TOOLS + body, input);

/** Presses a control by its name with a pointer; an open tab stays open. */
async function press(driver: Driver, name: string): Promise<void> {
  const at = await step<Point | null>(
    driver,
    `const found = await until(() => named(input));
     if (found.getAttribute('aria-selected') === 'true') return null;
     found.scrollIntoView({ block: 'center' });
     // Nothing lies over it any more.
     return until(() => {
       const { left, top, width, height } = found.getBoundingClientRect();
       const at = { x: left + width / 2, y: top + height / 2 };
       return found.contains(document.elementFromPoint(at.x, at.y)) && at;
     });`,
    name,
  );
  if (at) await driver.stroke([at]);
}

/** The first journey: a photo opened, a material, its strength, a stroke, faces, undo, export, reload. */
export async function journey(driver: Driver, home: string): Promise<Journey> {
  await driver.open(home);
  await step(driver, `await until(() => named('Open a photo'));`);
  const first = await step<number>(
    driver,
    `const blob = await (await fetch('/demo/photos/' + input)).blob();
     const data = new DataTransfer();
     data.items.add(new File([blob], input, { type: blob.type }));
     const start = performance.now();
     for (const kind of ['dragenter', 'dragover', 'drop']) window.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: data }));
     await until(() => canvas() && canvas().width > 1);
     await fine();
     return performance.now() - start;`,
    'keeper.jpg',
  );
  const about = await step<{ isIsolated: boolean; isShared: boolean }>(
    driver,
    `return { isIsolated: crossOriginIsolated, isShared: dermatexEngine.pool.shared };`,
  );
  await step(driver, `await rested();`);
  await press(driver, 'Add a material');
  await press(driver, 'Aged, stained paper');
  const material = await step<number>(
    driver,
    `await until(() => document.body.innerText.includes('Trying “'));
     await new Promise((r) => setTimeout(r, 30));
     await fine();
     return since();`,
  );
  await press(driver, 'Use it');
  await step(driver, `await until(() => document.querySelector('[data-testid="card-0"]'));`);
  await press(driver, 'Blend');
  const drags = await step<number[]>(
    driver,
    `await rested();
     const slider = await until(() => document.querySelector('input[type="range"][aria-label="Strength"]'));
     await new Promise((r) => setTimeout(r, 1000));
     const nextFrame = () => new Promise((resolve) => { const off = dermatexFrames.subscribe(({ frame }) => { if (frame) { off(); resolve(); } }); });
     const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
     const times = [];
     slider.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
     for (let i = 0; i < 45; i++) {
       const start = performance.now();
       const frame = nextFrame();
       set.call(slider, String(0.1 + 0.015 * i));
       slider.dispatchEvent(new Event('input', { bubbles: true }));
       await frame;
       times.push(performance.now() - start);
     }
     slider.dispatchEvent(new PointerEvent('pointerup', { bubbles: true }));
     slider.dispatchEvent(new Event('change', { bubbles: true }));
     return times.slice(5).sort((a, b) => a - b);`,
  );
  await step(driver, `await rested();`);
  await press(driver, 'Mask');
  await press(driver, 'Paint');
  await step(driver, `await until(() => document.querySelector('[data-testid="stroke-line"]')); await rested();`);
  const box = await step<{ left: number; top: number; width: number; height: number }>(
    driver,
    `const { left, top, width, height } = canvas().getBoundingClientRect(); return { left, top, width, height };`,
  );
  const at = (x: number, y: number): Point => ({ x: box.left + box.width * x, y: box.top + box.height * y });
  await driver.stroke([at(0.45, 0.4), at(0.55, 0.45), at(0.6, 0.5), at(0.5, 0.42)]);
  const stroke = await step<number>(
    driver,
    `const start = performance.now(); await until(() => named('Undo: Erase')); await fine(); return performance.now() - start;`,
  );
  await press(driver, 'Guards');
  await press(driver, 'Find faces and people');
  const faces = await step<number>(
    driver,
    `await until(() => document.querySelector('[data-testid="region-eyes"]'));
     return since();`,
  );
  await step(driver, `await rested();`);
  await press(driver, 'Undo: ');
  const undo = await step<number>(
    driver,
    `await new Promise((r) => setTimeout(r, 30));
     await fine();
     return since();`,
  );
  await step(
    driver,
    `await rested();
     const url = URL.createObjectURL.bind(URL);
     URL.createObjectURL = (blob) => { if (blob.type.startsWith('image/')) globalThis.made = blob; return url(blob); };`,
  );
  await press(driver, 'Export');
  await press(driver, 'PNG');
  await press(driver, 'Save the picture');
  const { exported, size, mean } = await step<{ exported: number; size: string; mean: number[] }>(
    driver,
    `await until(() => globalThis.made);
     const exported = since();
     const picture = await createImageBitmap(made);
     const small = Object.assign(document.createElement('canvas'), { width: 64, height: 64 });
     const context = small.getContext('2d');
     context.imageSmoothingQuality = 'high';
     context.drawImage(picture, 0, 0, 64, 64);
     const data = context.getImageData(0, 44, 64, 20).data;
     const sum = [0, 0, 0];
     for (let i = 0; i < data.length; i++) if (i % 4 < 3) sum[i % 4] += data[i];
     return { exported, size: picture.width + ' × ' + picture.height, mean: sum.map((s) => s / (data.length / 4)) };`,
  );
  await press(driver, 'Back to the bench');
  await step(driver, `await rested(); await new Promise((r) => setTimeout(r, 2500));`);
  const where = await step<string>(driver, `return location.href;`);
  const start = Date.now();
  await driver.open(where);
  await step(driver, `await fine(); await until(() => document.querySelector('[data-testid="card-0"]'));`);
  return {
    ...about,
    first,
    material,
    drag: drags[Math.floor(drags.length / 2)],
    dragSlow: drags[Math.floor(drags.length * 0.95)],
    stroke,
    faces,
    undo,
    exported,
    reload: Date.now() - start,
    size,
    mean,
  };
}
