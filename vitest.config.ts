import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          // What marks a text as one of the program's words.
          setupFiles: ['@angular/localize/init'],
          // Pure functions, which leave nothing behind for the next file; loading them anew for each takes longer than
          // the tests.
          isolate: false,
          // Simulations of thousands of runs, on a machine that is four times slower.
          testTimeout: 60_000,
          include: [
            'core/**/*.spec.ts',
            'backtest/**/*.spec.ts',
            'contract/**/*.spec.ts',
            'web/src/**/*.spec.ts',
            'demo/**/*.spec.ts',
            'scripts/**/*.spec.ts',
          ],
          // Those that need Angular's compiler run under it: scripts/test.mjs.
          exclude: ['**/*.component.spec.ts', '**/node_modules/**'],
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.spec.ts'],
          testTimeout: 240_000,
          hookTimeout: 480_000,
          globalSetup: ['server/test/databases.ts'],
          pool: 'forks',
          // Each file opens studios of its own; only the program is loaded once a worker, which takes seconds.
          isolate: false,
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.spec.ts'],
          // Whole days take minutes each: npm run days.
          exclude: ['e2e/days/**', '**/node_modules/**'],
          globalSetup: ['e2e/demo-template.ts'],
          // A whole journey, or a walk over every page, on a machine several times slower than this one.
          testTimeout: 1_200_000,
          hookTimeout: 600_000,
          maxWorkers: 2,
          sequence: { groupOrder: 2 },
        },
      },
      {
        test: {
          name: 'days',
          include: ['e2e/days/*.spec.ts'],
          globalSetup: ['e2e/demo-template.ts'],
          testTimeout: 1_200_000,
          hookTimeout: 600_000,
          maxWorkers: 2,
          sequence: { groupOrder: 3 },
        },
      },
    ],
  },
});
