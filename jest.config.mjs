const transform = { '^.+\\.tsx?$': ['@swc/jest', { jsc: { target: 'es2023', parser: { syntax: 'typescript' } } }] }
const common = { transform, testEnvironment: 'node', transformIgnorePatterns: ['/node_modules/'] }

/**
 * `unit` needs nothing but the sources; `routes` needs the built server and a database (scripts/test.mjs gives both).
 */
export default {
  projects: [
    {
      ...common,
      displayName: 'unit',
      roots: ['<rootDir>'],
      testMatch: ['<rootDir>/{core,words,cli,standins,demo,scripts,app,bench}/**/*.test.ts'],
      modulePathIgnorePatterns: ['/.output/', '/.nuxt/'],
    },
    { ...common, displayName: 'routes', roots: ['<rootDir>/server'], testMatch: ['<rootDir>/server/**/*.test.ts'] },
  ],
}
