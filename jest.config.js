const alias = { '^@/(.*)$': '<rootDir>/src/$1' };

const node = {
  globalSetup: '<rootDir>/scripts/jest-setup.js',
  transform: { '^.+\\.tsx?$': ['babel-jest', { presets: ['babel-preset-expo'] }] },
  transformIgnorePatterns: ['node_modules/(?!(culori|image-size)/)'],
  moduleNameMapper: { ...alias, '^@react-native-async-storage/async-storage$': '<rootDir>/src/testing/async-storage.ts' },
};

module.exports = {
  projects: [
    {
      ...node,
      displayName: 'core',
      // Without a realm of its own: there every use of Math is slow, and these tests compute a great deal.
      testEnvironment: 'jest-environment-node-single-context',
      testMatch: ['<rootDir>/{src/{core,engine},cli}/**/*.test.ts'],
    },
    { ...node, displayName: 'node', testEnvironment: 'node', testMatch: ['<rootDir>/{src/{store,ui},server,demo}/**/*.test.ts'] },
    {
      displayName: 'web',
      preset: 'jest-expo/web',
      setupFiles: ['<rootDir>/scripts/jest-web.js'],
      testMatch: ['<rootDir>/src/**/*.webtest.tsx'],
      moduleNameMapper: { ...alias, MaterialCommunityIcons: '<rootDir>/src/testing/icons.ts' },
    },
  ],
};
