// Prints "passed failed" of a test report: xUnit's CTRF or Playwright's JSON.
import { readFileSync } from 'node:fs'

const report = JSON.parse(readFileSync(process.argv[2], 'utf8'))
const { passed, failed } = report.results
  ? { passed: report.results.summary.passed, failed: report.results.summary.failed + report.results.summary.other }
  : { passed: report.stats.expected, failed: report.stats.unexpected + report.stats.flaky }
if (!(passed + failed > 0)) process.exit(1)
console.log(passed, failed)
