import { spawn, type ChildProcess } from 'node:child_process';
import { launch, type Browser as PuppeteerBrowser, type Page } from 'puppeteer-core';
import { Builder, Capabilities, type WebDriver } from 'selenium-webdriver';
import { chromiumOptions } from '../scripts/chromium.mjs';

export interface Point {
  x: number;
  y: number;
}

/** What the journey asks of a browser. */
export interface Driver {
  name: string;
  version: string;
  open(url: string): Promise<void>;
  /** Runs the body of an async function in the page; `input` is its only name. Resolves what it returns, which must be plain data. */
  run<T>(body: string, input?: unknown): Promise<T>;
  /** A pointer that goes down at the first point, through the others, and up. */
  stroke(points: Point[]): Promise<void>;
  close(): Promise<void>;
}

const WIDTH = 1280;
const HEIGHT = 800;

/** A message that cannot carry shared memory, as in browsers that have none: the page falls back to private memory. */
const WITHOUT_SHARED_MEMORY = `
  const post = Worker.prototype.postMessage;
  Worker.prototype.postMessage = function (message, more) {
    if (message && message.memory) throw new DOMException('The object can not be cloned.', 'DataCloneError');
    return post.call(this, message, more);
  };`;

/** The text of a call of an async function with this body. The page's security policy allows no text to be compiled inside it. */
const called = (body: string, input?: unknown) => `(async (input) => { ${body} })(${JSON.stringify(input ?? null)})`;

async function byPuppeteer(name: string, browser: PuppeteerBrowser, before = ''): Promise<Driver> {
  const page: Page = (await browser.pages())[0] ?? (await browser.newPage());
  await page.setViewport({ width: WIDTH, height: HEIGHT });
  if (before) await page.evaluateOnNewDocument(before);
  return {
    name,
    version: await browser.version(),
    open: async (url) => void (await page.goto(url)),
    run: <T>(body: string, input?: unknown) => page.evaluate(called(body, input)) as Promise<T>,
    async stroke([first, ...rest]) {
      await page.mouse.move(first.x, first.y);
      await page.mouse.down();
      for (const { x, y } of rest) await page.mouse.move(x, y, { steps: 6 });
      await page.mouse.up();
    },
    close: () => browser.close(),
  };
}

export const chromium = async (isShared: boolean): Promise<Driver> =>
  byPuppeteer(
    isShared ? 'Chromium' : 'Chromium, private memory',
    await launch({ ...chromiumOptions, protocolTimeout: 300_000 }),
    isShared ? '' : WITHOUT_SHARED_MEMORY,
  );

export const firefox = async (): Promise<Driver> =>
  byPuppeteer(
    'Firefox ESR',
    await launch({
      browser: 'firefox',
      executablePath: process.env.FIREFOX ?? '/usr/bin/firefox-esr',
      headless: true,
      protocolTimeout: 300_000,
      // Nothing of its own goes out to the network.
      extraPrefsFirefox: {
        'app.update.enabled': false,
        'network.captive-portal-service.enabled': false,
        'network.connectivity-service.enabled': false,
      },
    }),
  );

/** Starts a program and resolves once it has said something on the given stream, or after `patience` ms. */
async function started(command: string, args: string[], env: NodeJS.ProcessEnv, patience: number): Promise<ChildProcess> {
  const child = spawn(command, args, { env, stdio: ['ignore', 'pipe', 'pipe'] });
  await new Promise<void>((resolve, reject) => {
    child.once('error', reject);
    child.stdout.once('data', () => resolve());
    setTimeout(resolve, patience);
  });
  return child;
}

/** WebKitGTK has no window-less mode: it draws on a display in memory. */
export async function webkit(): Promise<Driver> {
  const display = ':97';
  const port = 4399;
  const screen = await started('Xvfb', [display, '-screen', '0', `${WIDTH}x${HEIGHT + 200}x24`], process.env, 1500);
  // The processes of the page cannot be put into a sandbox of their own by the administrator inside a container.
  const env = { ...process.env, DISPLAY: display, WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: '1', LIBGL_ALWAYS_SOFTWARE: '1' };
  const server = await started('WebKitWebDriver', [`--port=${port}`], env, 1500);
  const stop = () => {
    server.kill();
    screen.kill();
  };
  try {
    const capabilities = new Capabilities({
      browserName: 'MiniBrowser',
      'webkitgtk:browserOptions': {
        binary: process.env.WEBKIT ?? '/usr/lib/x86_64-linux-gnu/webkit2gtk-4.1/MiniBrowser',
        args: ['--automation', `--geometry=${WIDTH}x${HEIGHT + 80}`],
      },
    });
    const driver: WebDriver = await new Builder().usingServer(`http://127.0.0.1:${port}`).withCapabilities(capabilities).build();
    await driver.manage().setTimeouts({ script: 120_000, pageLoad: 60_000 });
    return {
      name: 'WebKitGTK',
      version: String((await driver.getCapabilities()).get('browserVersion')),
      open: (url) => driver.get(url),
      async run<T>(body: string, input?: unknown) {
        const done = await driver.executeAsyncScript<{ value?: T; error?: string }>(
          `const done = arguments[0];
           ${called(body, input)}.then((value) => done({ value }), (error) => done({ error: String((error && error.message) || error) }));`,
        );
        if (done.error !== undefined) throw new Error(done.error);
        return done.value as T;
      },
      async stroke([first, ...rest]) {
        const hand = driver
          .actions()
          .move({ x: Math.round(first.x), y: Math.round(first.y) })
          .press();
        for (const { x, y } of rest) hand.move({ x: Math.round(x), y: Math.round(y), duration: 100 });
        await hand.release().perform();
      },
      async close() {
        await driver.quit().catch(() => undefined);
        stop();
      },
    };
  } catch (error) {
    stop();
    throw error;
  }
}
