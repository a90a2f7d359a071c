/** Clock text as everywhere: the core's own. */
export { clockText, lengthMs } from '../../../core/src/timing/clockText.ts';
