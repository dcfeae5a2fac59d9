export default {
  testEnvironment: "node",
  globalSetup: "<rootDir>/scripts/jest-setup.mjs",
  roots: [
    "<rootDir>/core",
    "<rootDir>/catalog",
    "<rootDir>/devices",
    "<rootDir>/words",
    "<rootDir>/formats",
    "<rootDir>/protocol",
    "<rootDir>/server",
    "<rootDir>/app",
  ],
  testMatch: ["**/*.test.ts", "**/*.test.tsx"],
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  moduleNameMapper: { "^~/(.*)$": "<rootDir>/$1", "\\.css$": "<rootDir>/app/tests/no-styles.mjs" },
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "es6" },
      },
    ],
  },
  testTimeout: 120000,
  maxWorkers: "100%",
};
