import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const here = fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '')

export default defineConfig({
  resolve: { alias: { '~~': here } },
  esbuild: { target: 'es2022', tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } } },
  test: {
    projects: [
      { extends: true, test: { name: 'unit', include: ['{core,shared,server,app,stand-ins,demo,scripts}/**/*.test.ts'], testTimeout: 60_000 } },
      { extends: true, test: { name: 'api', include: ['tests/api/**/*.test.ts'], fileParallelism: false, testTimeout: 60_000, hookTimeout: 120_000, globalSetup: ['tests/api/setup.ts'] } },
    ],
  },
})
