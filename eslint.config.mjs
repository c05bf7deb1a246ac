import eslint from '@eslint/js';
import angular from 'angular-eslint';
import prettier from 'eslint-config-prettier';
import jsdoc from 'eslint-plugin-jsdoc';
import tseslint from 'typescript-eslint';

/**
 * Which packages and folders a file may not reach into: imports run one way, and inside a package files name each
 * other directly.
 */
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

const WORLDS = group(['**/backtest/**'], 'What foretells may know nothing of the worlds it is measured in.');

/** Folders in the order of the work: each imports only from those before it. */
const oneWay = (root, folders, message, { also = [] } = {}) =>
  folders.map((folder, i) => ({
    files: [`${root}/${folder}/**/*.ts`],
    ignores: ['**/*.spec.ts'],
    rules: forbid(
      ...also,
      ...(i + 1 < folders.length
        ? [
            group(
              folders.slice(i + 1).flatMap((later) => [`../${later}/**`, `../../${later}/**`]),
              message,
            ),
          ]
        : []),
    ),
  }));

const CORE_ROOMS = [
  'words',
  'quantity',
  'calendar',
  'colour',
  'photo',
  'instrument',
  'bath',
  'stock',
  'safety',
  'catalogue',
  'recipe',
  'scaling',
  'trial',
  'checks',
  'run',
  'judge',
  'match',
  'schedule',
  'orders',
  'plan',
  'trace',
  'people',
];
const CORE = [FRAMEWORKS, WORLDS, group(['@vestigia/*', 'zod'], 'core imports nothing of ours.')];
const OWN_FACE = group(['./index', '../index', '../*/index'], 'Inside core, files name each other directly.');

const SERVER_ROOMS = [
  'db',
  'shared',
  'http',
  'devices',
  'auth',
  'studio',
  'notes',
  'stores',
  'recipes',
  'colourways',
  'lots',
  'bench',
  'judge',
  'match',
  'orders',
  'plan',
  'today',
  'document',
  'copies',
];
const SERVER_ROOT = group(['../app', '../main', '../../app', '../../main'], 'What all features use lies in shared/.');

const SERVER_SIDE = group(
  ['express', 'drizzle-orm*', 'node:*', '**/server/**'],
  'The interface speaks to the server over HTTP only.',
);
const WEB_ROOMS = ['format', 'api', 'services', 'ui', 'features', 'shell'];
const WEB_FEATURES = [
  'auth',
  'today',
  'stores',
  'recipes',
  'colourways',
  'orders',
  'lots',
  'bench',
  'judge',
  'plan',
  'studio',
];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '**/.angular/**', 'server/db/migrations/**', 'coverage/**'] },
  {
    files: ['**/*.ts', '**/*.mts'],
    extends: [eslint.configs.recommended, ...tseslint.configs.recommended],
    rules: {
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { prefer: 'type-imports', disallowTypeAnnotations: false },
      ],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-explicit-any': 'error',
      eqeqeq: 'error',
      // Judged on formatted text: past this a file holds more than one thought.
      'max-lines': ['error', { max: 420, skipBlankLines: true }],
    },
  },
  {
    files: ['**/*.ts', '**/*.mts'],
    ignores: ['**/*.spec.ts', '**/*.fixture.ts', '**/testing/**', 'server/test/**', 'e2e/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'TSAsExpression > TSAsExpression',
          message: 'A value that has to pass for something else is checked where it comes in.',
        },
        {
          // The translator takes a colon there for the placeholder’s name, and throws when the sentence is said.
          selector:
            'TaggedTemplateExpression[tag.name="$localize"] TemplateElement[value.raw=/^:(?!\\w+:)/]:not(:first-child)',
          message: 'A colon can’t stand right behind a placeholder. Put another word between.',
        },
      ],
    },
  },
  // A suite may run longer: its rows are data.
  {
    files: ['**/*.spec.ts'],
    rules: {
      'max-lines': ['error', { max: 600, skipBlankLines: true }],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'IfStatement[test.property.name="ok"] > .consequent CallExpression[callee.name="expect"]',
          message: 'Narrow it with granted() or refused(): an assertion under an if can pass without being made.',
        },
      ],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      ...forbid(...CORE),
      'no-restricted-globals': ['error', 'fetch', 'process', 'document', 'window'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Time is an argument.' },
        { object: 'Math', property: 'random', message: 'Randomness is an argument.' },
      ],
    },
  },
  ...oneWay('core', CORE_ROOMS, 'A room of core knows only those before it.', { also: [...CORE, OWN_FACE] }),
  {
    // What core offers says what it is: units and ranges, what it throws, and where a formula comes from.
    files: ['core/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/*.fixture.ts', '**/index.ts'],
    plugins: { jsdoc },
    rules: {
      'jsdoc/require-jsdoc': [
        'error',
        {
          publicOnly: true,
          enableFixer: false,
          require: { ClassDeclaration: true, FunctionDeclaration: true, ArrowFunctionExpression: true },
          contexts: [
            'ExportNamedDeclaration > VariableDeclaration',
            'ExportNamedDeclaration > TSInterfaceDeclaration',
            'ExportNamedDeclaration > TSTypeAliasDeclaration',
          ],
        },
      ],
      'jsdoc/check-tag-names': 'error',
      'jsdoc/require-param-description': 'error',
      'jsdoc/require-returns-description': 'error',
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
    rules: forbid(
      DEEP,
      WORLDS,
      group(
        ['@angular/*', '!@angular/localize', '!@angular/localize/init'],
        'The server knows nothing of the interface.',
      ),
    ),
  },
  ...oneWay('server', SERVER_ROOMS, 'A feature reads only features before it in working order.', {
    also: [
      DEEP,
      WORLDS,
      SERVER_ROOT,
      group(
        ['@angular/*', '!@angular/localize', '!@angular/localize/init'],
        'The server knows nothing of the interface.',
      ),
    ],
  }),
  {
    files: ['web/src/**/*.ts'],
    ignores: ['**/*.spec.ts', 'web/src/app/testing/**'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      ...forbid(DEEP, WORLDS, SERVER_SIDE),
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@angular-eslint/component-class-suffix': 'off',
      '@angular-eslint/directive-class-suffix': 'off',
      // Classes are injected by what they are at run time.
      '@typescript-eslint/consistent-type-imports': 'off',
    },
  },
  ...oneWay('web/src/app', WEB_ROOMS, 'A layer of the interface knows only those before it.', {
    also: [DEEP, WORLDS, SERVER_SIDE],
  }),
  ...WEB_FEATURES.map((feature) => ({
    files: [`web/src/app/features/${feature}/**/*.ts`],
    rules: forbid(
      DEEP,
      WORLDS,
      SERVER_SIDE,
      group(['../../shell/**', '../../../shell/**'], 'A layer of the interface knows only those before it.'),
      group(
        WEB_FEATURES.filter((f) => f !== feature).flatMap((other) => [`../${other}/**`, `../../${other}/**`]),
        'Features don’t import each other; what two need lives in ui/.',
      ),
    ),
  })),
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
  },
  {
    // A world has physics of its own: of the product it takes no more than published formulas of light.
    files: ['backtest/worlds/**/*.ts'],
    ignores: ['backtest/worlds/light.ts'],
    rules: forbid(group(['@vestigia/*', '**/core/match/**'], 'A world knows nothing of the product.')),
  },
  // Last: what the formatter settles is no matter for lint.
  prettier,
);
