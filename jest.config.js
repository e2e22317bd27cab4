const alias = { '^@/(.*)$': '<rootDir>/src/$1' };

module.exports = {
  projects: [
    {
      displayName: 'core',
      testEnvironment: 'node',
      globalSetup: '<rootDir>/scripts/jest-setup.js',
      testMatch: ['<rootDir>/{src,cli,server,demo}/**/*.test.ts'],
      transform: { '^.+\\.tsx?$': ['babel-jest', { presets: ['babel-preset-expo'] }] },
      transformIgnorePatterns: ['node_modules/(?!(culori|image-size)/)'],
      moduleNameMapper: { ...alias, '^@react-native-async-storage/async-storage$': '<rootDir>/src/testing/async-storage.ts' },
    },
    {
      displayName: 'web',
      preset: 'jest-expo/web',
      setupFiles: ['<rootDir>/scripts/jest-web.js'],
      testMatch: ['<rootDir>/src/**/*.webtest.tsx'],
      moduleNameMapper: { ...alias, MaterialCommunityIcons: '<rootDir>/src/testing/icons.ts' },
    },
  ],
};
