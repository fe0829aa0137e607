// A reporter for Vitest: writes the names of the tests that failed at first and passed then.
import { writeFileSync } from 'node:fs';
import { relative } from 'node:path';
import { projectFolder } from './project.mjs';

export default class SecondTries {
  names = [];

  onTestCaseResult(test) {
    if (test.diagnostic()?.flaky) this.names.push(`${relative(projectFolder, test.module.moduleId)}: ${test.fullName}`);
  }

  onTestRunEnd() {
    if (process.env.NUVET_SECOND_TRIES) writeFileSync(process.env.NUVET_SECOND_TRIES, JSON.stringify(this.names));
  }
}
