import { defineConfig } from '@playwright/test';

const port = 3290;

/** What the test runner leaves off by itself; a list of one's own takes the place of its list. */
const unneeded = [
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsUpgrades',
  'HttpsFirstBalancedModeAutoEnable',
  'LensOverlay',
  'MediaRouter',
  'PaintHolding',
  'ThirdPartyStoragePartitioning',
  'OptimizationHints',
  'NetworkTimeServiceQuerying',
  'AimEnabled',
  'PreconnectToSearch',
];

export default defineConfig({
  testDir: 'tests/e2e',
  timeout: 120_000,
  // Generous: a machine that is busy with something else is no fault of the page.
  expect: { timeout: 25_000 },
  workers: 1,
  retries: 0,
  reporter: [['line'], ['json', { outputFile: '.state/browser.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    // The full drying starts by itself only where a test asks for it.
    storageState: {
      cookies: [],
      origins: [{ origin: `http://127.0.0.1:${port}`, localStorage: [{ name: 'sostegno-dry-by-self', value: 'off' }] }],
    },
    launchOptions: {
      executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        // Page and picture are drawn in software here: of the two, only the picture has to go through the graphics path.
        '--disable-gpu-rasterization',
        '--disable-gpu-compositing',
        '--webgl-antialiasing-mode=none',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--use-gl=angle',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        // The browser's own address bar is drawn by pages of its own, loaded anew for each window of ours, and nobody types there.
        `--disable-features=${[...unneeded, 'WebUIOmniboxPopup', 'WebUIOmniboxAimPopup', 'WebUIOmniboxFullPopup'].join(',')}`,
      ],
    },
  },
  webServer: {
    // What an earlier run left behind would take hands from this one's pieces.
    command: `rm -rf .state/browser-data && node --import tsx src/cli/serve.ts --demo --port ${port} --data .state/browser-data`,
    url: `http://127.0.0.1:${port}/`,
    timeout: 120_000,
    reuseExistingServer: false,
    stdout: 'pipe',
    stderr: 'pipe',
  },
});
