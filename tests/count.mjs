// Prints "passed failed again" of a test report: xUnit's CTRF, Vitest's or Playwright's JSON. A browser test that passed only
// when tried again has passed, and is counted, so that it is seen.
import { readFileSync } from 'node:fs'

const report = JSON.parse(readFileSync(process.argv[2], 'utf8'))
const { passed, failed, again } = report.results
  ? {
      passed: report.results.summary.passed,
      failed: report.results.summary.failed + report.results.summary.other,
      again: 0,
    }
  : 'numTotalTests' in report
    ? {
        passed: report.numPassedTests,
        // A file that cannot be read at all has no tests that failed.
        failed: report.numFailedTests + (report.numFailedTests === 0 && !report.success ? 1 : 0),
        again: 0,
      }
    : {
        passed: report.stats.expected + report.stats.flaky,
        failed: report.stats.unexpected,
        again: report.stats.flaky,
      }
if (!(passed + failed > 0)) process.exit(1)
console.log(passed, failed, again)
