const expo = require('eslint-config-expo/flat');

const fence = (zone, forbidden, why) => ({
  files: zone,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group: forbidden, message: why }] }] },
});

module.exports = [
  ...expo,
  { ignores: ['node_modules/', 'dist/', 'build/', 'public/', 'src/kernels/', '**/*.generated.ts', 'coverage/', '.expo/', 'test-results/'] },
  {
    rules: {
      'no-console': 'off',
      'react/no-unescaped-entities': 'off',
    },
  },
  // Arrows run one way: app → ui → store → engine → core. Nothing in core imports out of it.
  fence(
    ['src/core/**/*.ts'],
    [
      'react*',
      'expo',
      'expo-*',
      'expo/*',
      'zustand*',
      '@react-native*',
      'node:*',
      'fs',
      'path',
      'sharp',
      '@/*',
      '**/engine/**',
      '**/store/**',
      '**/ui/**',
      '**/server/**',
      '**/cli/**',
      '../../../../*',
    ],
    'core has no interface, storage, platform or outside code',
  ),
  fence(
    ['src/engine/**/*.ts'],
    ['react*', 'expo', 'expo-*', 'expo/*', 'zustand*', '**/store/**', '**/ui/**', '@/store/*', '@/ui/*'],
    'engine stands on core only',
  ),
  fence(['src/store/**/*.ts'], ['**/ui/**', '@/ui/*', 'react-native-paper'], 'stores know nothing of the interface'),
  {
    files: ['src/ui/**/*.tsx'],
    ignores: ['**/*.webtest.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          'JSXText[value=/[A-Za-z]{2}/]',
          'JSXAttribute[name.name=/^(label|title|help|says|none|placeholder|alt|aria-label|accessibilityLabel)$/] Literal[value=/[A-Za-z]{2}/]',
          'JSXAttribute[name.name=/^(label|title|help|says|none|placeholder|alt|aria-label|accessibilityLabel)$/] TemplateElement[value.raw=/[A-Za-z]{2}/]',
          'Property[key.name=/^(label|title|help|says)$/] > Literal[value=/[A-Za-z]{2}/]',
          'CallExpression[callee.name=/^(say|complain)$/] > Literal',
        ].map((selector) => ({ selector, message: 'words of the screens stand in src/ui/words.ts' })),
      ],
    },
  },
  {
    files: ['**/*.test.ts', 'src/testing/**'],
    rules: { 'no-restricted-imports': 'off' },
  },
];
