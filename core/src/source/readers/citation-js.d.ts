/** The parts of citation-js that are used; the packages ship no types. */
declare module '@citation-js/core' {
  export class Cite {
    constructor(input: unknown, options?: { forceType?: string; generateGraph?: boolean });
    data: object[];
    format(type: string, options?: Record<string, unknown>): string;
  }
  export const plugins: {
    config: { get: (name: string) => { templates: { add: (id: string, xml: string) => void } } };
  };
}
declare module '@citation-js/plugin-bibtex';
declare module '@citation-js/plugin-ris';
declare module '@citation-js/plugin-csl';
