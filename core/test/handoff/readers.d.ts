/** Readers of other people that come without types. */
declare module 'imsc/src/main/js/doc.js' {
  export function fromXML(xml: string, handler: object): unknown;
}
declare module 'smpte-timecode' {
  export default class Timecode {
    constructor(frames: number, rate: number, dropFrame: boolean);
    toString(): string;
  }
}
declare module 'xliff' {
  export function xliff2js(text: string): Promise<unknown>;
}
declare module 'fontkit' {
  export function create(bytes: Uint8Array): unknown;
}
