// Mocha's "spec" reporter, closed by the line that says how it went. Checks before the tests count as failures too.
const { reporters, Runner } = require('mocha');

class Closing extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    runner.once(Runner.constants.EVENT_RUN_END, () => {
      const { passes, failures } = runner.stats;
      process.stdout.write(
        `\n${passes} passed, ${failures + Number(process.env.FAILED_CHECKS ?? 0)} failed\n`,
      );
    });
  }
}
module.exports = Closing;
