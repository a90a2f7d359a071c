// Mocha's "spec" reporter; at the end it leaves its counts in the file that COUNTS names, for the line that closes a run.
const { writeFileSync } = require('node:fs');
const { reporters, Runner } = require('mocha');

class Counting extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    runner.once(Runner.constants.EVENT_RUN_END, () => {
      const { passes, failures } = runner.stats;
      if (process.env.COUNTS) writeFileSync(process.env.COUNTS, JSON.stringify({ passes, failures }));
    });
  }
}
module.exports = Counting;
