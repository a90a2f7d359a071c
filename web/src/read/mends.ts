/** Mends as the page makes them; the core’s own, without loading its rules. */
export { safeEdits as mendable, withEdits } from '@ursprung/core/mend';
