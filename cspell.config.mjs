const RETIRED = [
  'unrest',
  'waive',
  'waived',
  'waiver',
  'taker',
  'takers',
  'wardrobe',
  'puppet',
  'remedy',
  'remedies',
];

/** Spelling of code, docs and screen strings; `flagWords` are the words that docs/words.md retires. */
export default {
  version: '0.2',
  language: 'en-GB',
  dictionaries: ['typescript', 'node', 'npm', 'html', 'css', 'software-terms', 'project-words'],
  dictionaryDefinitions: [{ name: 'project-words', path: './cspell-words.txt', addWords: true }],
  files: ['**/*.{ts,tsx,mjs,cjs,md}'],
  ignorePaths: [
    'node_modules',
    'dist',
    'packages/web/types',
    'demo/made',
    'e2e/results',
    '**/fixtures/**',
    'cspell-words.txt',
    'THIRD_PARTY.md',
  ],
  ignoreRegExpList: ['/[0-9a-f]{8}-[0-9a-f-]{27}/g', '/sha256-\\S+/g', '/data:[a-z]+\\/[^\'"`]+/g'],
  allowCompoundWords: true,
  caseSensitive: false,
  flagWords: RETIRED,
  overrides: [
    // The former names live on where earlier documents, variables and addresses are read.
    {
      filename: [
        '**/document/upgrade/**',
        '**/earlier-shots*',
        'docs/shot-file.md',
        'docs/words.md',
        'cspell.config.mjs',
        'packages/core/src/check/report.ts',
        'packages/server/src/database/migrations/**',
        'packages/server/src/settings.ts',
        'packages/server/src/pool/database-queue.ts',
        'packages/server/src/pool/job-rows.ts',
        'packages/server/src/pool/picture-batch.entity.ts',
        'packages/cli/src/run.test.ts',
      ],
      ignoreWords: RETIRED,
    },
  ],
};
