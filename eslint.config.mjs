import eslint from '@eslint/js';
import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** Which packages and folders a file may not reach into: imports run one way, and inside a package files name each other directly. */
const forbid = (...patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });
const group = (list, message) => ({ group: list, message });
const FRAMEWORKS = group(
  ['@angular/*', 'express', 'drizzle-orm*', 'rxjs*', 'node:*'],
  'core and contract are free of frameworks and of the machine.',
);
const DEEP = group(
  ['@vestigia/*/**', '../**/core/**', '../**/contract/**'],
  'A package is used through its face, index.ts.',
);

/** Features of the server in working order: each may read only those before it. */
const SERVER_FEATURES = ['studio', 'stores', 'recipes', 'colourways', 'lots', 'bench', 'today'];
const serverFeatures = SERVER_FEATURES.map((feature, i) => ({
  files: [`server/${feature}/**/*.ts`],
  ignores: ['**/*.spec.ts'],
  rules: forbid(
    DEEP,
    ...(i + 1 < SERVER_FEATURES.length
      ? [
          group(
            SERVER_FEATURES.slice(i + 1).map((later) => `../${later}/**`),
            'A feature reads only features before it in working order.',
          ),
        ]
      : []),
  ),
}));
const WEB_FEATURES = ['door', 'today', 'stores', 'recipes', 'colourways', 'lots', 'bench', 'judge', 'plan', 'studio'];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '**/.angular/**', 'server/db/migrations/**', 'coverage/**'] },
  {
    files: ['**/*.ts'],
    extends: [eslint.configs.recommended, ...tseslint.configs.recommended],
    rules: {
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { prefer: 'type-imports', disallowTypeAnnotations: false },
      ],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-explicit-any': 'error',
      eqeqeq: 'error',
      'max-lines': ['error', { max: 420, skipBlankLines: true }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      ...forbid(FRAMEWORKS, group(['@vestigia/*', 'zod'], 'core imports nothing of ours.')),
      'no-restricted-globals': ['error', 'fetch', 'process', 'document', 'window'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Time is an argument.' },
        { object: 'Math', property: 'random', message: 'Randomness is an argument.' },
      ],
    },
  },
  {
    files: ['contract/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: forbid(
      FRAMEWORKS,
      group(['@vestigia/server*', '@vestigia/web*', '@vestigia/contract'], 'contract stands on core alone.'),
    ),
  },
  {
    files: ['server/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: forbid(DEEP, group(['@angular/*'], 'The server knows nothing of the interface.')),
  },
  ...serverFeatures,
  {
    files: ['web/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      ...forbid(
        DEEP,
        group(
          ['express', 'drizzle-orm*', 'node:*', '**/server/**'],
          'The interface speaks to the server over HTTP only.',
        ),
      ),
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@angular-eslint/component-class-suffix': 'off',
      '@angular-eslint/directive-class-suffix': 'off',
      // Classes are injected by what they are at run time.
      '@typescript-eslint/consistent-type-imports': 'off',
    },
  },
  ...WEB_FEATURES.map((feature) => ({
    files: [`web/src/app/features/${feature}/**/*.ts`],
    rules: forbid(
      DEEP,
      group(
        WEB_FEATURES.filter((f) => f !== feature).map((other) => `../${other}/**`),
        'Features don’t import each other; what two need lives in ui/.',
      ),
    ),
  })),
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
  },
);
