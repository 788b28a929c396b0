import { svelteTesting } from '@testing-library/svelte/vite';
import { defineConfig, mergeConfig } from 'vitest/config';
import build from './vite.config';

export default mergeConfig(
  build,
  defineConfig({
    plugins: [svelteTesting()],
    test: {
      environment: 'jsdom',
      isolate: false, // a window for each file takes most of the time; see test/setup.ts
      setupFiles: ['test/setup.ts'],
      include: ['src/**/*.test.ts'],
      testTimeout: 60_000,
      hookTimeout: 60_000,
    },
  }),
);
