import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests/browser',
  timeout: 150_000,
  expect: { timeout: 20_000 },
  workers: 1,
  fullyParallel: false,
  retries: 0,
  reporter: [['list']],
  use: {
    baseURL: process.env.TEST_ORIGIN,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'],
    },
    permissions: ['clipboard-read', 'clipboard-write'],
    trace: 'off',
  },
})
