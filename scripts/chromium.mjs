// How the browser is started by the tests, the measurements and the screenshots: nothing of its own goes out to the network.
export const chromiumOptions = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};
