const swc = (parser) => ['@swc/jest', { jsc: { target: 'es2022', parser }, module: { type: 'commonjs' } }];

export default {
  testEnvironment: 'node',
  // Nothing else runs beside them: on two cores the runner would leave one idle.
  maxWorkers: '100%',
  roots: ['<rootDir>/src', '<rootDir>/tests/unit'],
  testMatch: ['**/*.test.ts'],
  // The fitting library and the calendar reader are written as modules only: they are brought to what the runner reads, as our own code is.
  transform: {
    '^.+\\.tsx?$': swc({ syntax: 'typescript', tsx: true }),
    'node_modules/(ml-levenberg-marquardt|is-any-array|ical\\.js)/.+\\.js$': swc({ syntax: 'ecmascript' }),
  },
  transformIgnorePatterns: ['node_modules/(?!(ml-levenberg-marquardt|is-any-array|ical\\.js)/)'],
  extensionsToTreatAsEsm: [],
};
