import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder } from 'selenium-webdriver';
import { Options, ServiceBuilder, type Driver } from 'selenium-webdriver/chrome.js';

export interface Browser {
  driver: Driver;
  close: () => Promise<void>;
}

interface Wish {
  width?: number;
  height?: number;
  /** Shown on a real X display instead of headless. */
  display?: string;
  args?: string[];
}

const HEADLESS = '/usr/lib/chromium/chromium-headless-shell';

/** Where the app under test is. */
export const appUrl = (): string => {
  const url = process.env.REZZIK_URL;
  if (!url) throw new Error('REZZIK_URL must say where the app under test is; run npm test.');
  return url;
};

/** For a camera and a microphone that Chromium makes up, and allows without asking. */
export const fakeDevices = ['--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream'];

/** A Chromium of its own profile that reaches nothing but the app. */
export async function openBrowser(wish: Wish = {}): Promise<Browser> {
  const { width = 1280, height = 800, display, args = [] } = wish;
  const profile = display && mkdtempSync(join(tmpdir(), 'rezzik-browser-'));
  const options = new Options();
  // Without a display the same Chromium without windows of its own, which computes less. Its profile
  // is of ChromeDriver's making, new each time. The program itself: what Debian has on the path is a
  // script that waits for it, and ChromeDriver would end that alone.
  options.setChromeBinaryPath(display ? '/usr/bin/chromium' : HEADLESS);
  options.addArguments(
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-dev-shm-usage',
    `--window-size=${width},${height}`,
    ...(profile ? [`--user-data-dir=${profile}`] : ['--headless', '--hide-scrollbars']),
    ...args,
  );
  const service = new ServiceBuilder('/usr/bin/chromedriver');
  if (display) service.setEnvironment({ ...process.env, DISPLAY: display });
  const driver = (await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(service)
    .build()) as Driver;
  if (!display) {
    await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: 1,
      mobile: false,
    });
  }
  await driver.manage().setTimeouts({ script: 60_000, pageLoad: 60_000 });
  return {
    driver,
    close: async () => {
      await driver.quit();
      if (profile) rmSync(profile, { recursive: true, force: true });
    },
  };
}
