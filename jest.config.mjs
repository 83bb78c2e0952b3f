const swc = (parser) => ['@swc/jest', { jsc: { target: 'es2022', parser }, module: { type: 'commonjs' } }];

export default {
  testEnvironment: 'node',
  // Nothing else runs beside them: on two cores the runner would leave one idle.
  maxWorkers: '100%',
  // For what hangs; how fast anything is, is the benchmark's to say.
  testTimeout: 60_000,
  // Tests run in a context of their own, where each look at a global goes a long way round: these are handed in beforehand.
  sandboxInjectedGlobals: [
    'Math',
    'Number',
    'Object',
    'Array',
    'Map',
    'Set',
    'Float64Array',
    'Float32Array',
    'Int32Array',
    'Uint8Array',
  ],
  roots: ['<rootDir>/src', '<rootDir>/tests/unit'],
  testMatch: ['**/*.test.ts'],
  // These are written as modules only: they are brought to what the runner reads, as our own code is.
  transform: {
    '^.+\\.tsx?$': swc({ syntax: 'typescript', tsx: true }),
    'node_modules/(ml-levenberg-marquardt|is-any-array|ical\\.js|meshoptimizer|three)/.+\\.js$': swc({
      syntax: 'ecmascript',
    }),
  },
  transformIgnorePatterns: ['node_modules/(?!(ml-levenberg-marquardt|is-any-array|ical\\.js|meshoptimizer|three)/)'],
  moduleNameMapper: { '^three$': '<rootDir>/node_modules/three/build/three.module.js' },
  extensionsToTreatAsEsm: [],
};
