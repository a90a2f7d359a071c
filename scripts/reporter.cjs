// Mocha's "spec" reporter; at the end it leaves its counts in the file that COUNTS names, for the lines that close a run, with what failed and how long each file of tests took.
const { writeFileSync } = require('node:fs');
const { relative } = require('node:path');
const { reporters, Runner } = require('mocha');

class Counting extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    const files = {};
    let last = Date.now();
    // Hooks count too: a server that is started for a file is a part of what the file costs.
    const count = ({ file }) => {
      const now = Date.now();
      if (file)
        files[relative(process.cwd(), file)] = (files[relative(process.cwd(), file)] ?? 0) + now - last;
      last = now;
    };
    runner.on(Runner.constants.EVENT_TEST_END, count);
    runner.on(Runner.constants.EVENT_HOOK_END, count);
    runner.once(Runner.constants.EVENT_RUN_END, () => {
      const { passes, failures } = runner.stats;
      // Said once more where the whole run ends: there they are seen.
      const failed = this.failures.map((test) => ({
        title: test.fullTitle(),
        why: String(test.err?.stack ?? test.err?.message ?? test.err).slice(0, 1200),
      }));
      if (process.env.COUNTS)
        writeFileSync(process.env.COUNTS, JSON.stringify({ passes, failures, failed, files }));
    });
  }
}
module.exports = Counting;
