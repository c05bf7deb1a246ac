import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['core/**/*.spec.ts', 'contract/**/*.spec.ts', 'web/src/**/*.spec.ts', 'demo/**/*.spec.ts'],
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.spec.ts'],
          testTimeout: 60_000,
          hookTimeout: 120_000,
          globalSetup: ['server/test/databases.ts'],
          pool: 'forks',
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.spec.ts'],
          globalSetup: ['e2e/demo-template.ts'],
          testTimeout: 180_000,
          hookTimeout: 180_000,
          maxWorkers: 2,
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
});
