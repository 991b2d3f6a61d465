import { defineConfig } from '@playwright/test';

const port = 5499;

export default defineConfig({
  testDir: '.',
  globalSetup: './quiet.ts',
  // What is awaited comes within a second on an idle machine; a busy one may take its time.
  timeout: 150_000,
  expect: { timeout: 15_000 },
  workers: 1,
  forbidOnly: true,
  outputDir: './test-results',
  reporter: [['list'], ['json', { outputFile: '../artifacts/browser.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: `../pantomet demo --port ${port}`,
    url: `http://127.0.0.1:${port}/healthz`,
    timeout: 300_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
});
