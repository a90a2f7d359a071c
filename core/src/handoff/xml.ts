/** XML for the writers, by xmlbuilder2. Characters that XML 1.0 can't hold are left out. */
import { create } from 'xmlbuilder2';
import type { XMLBuilder } from 'xmlbuilder2/lib/interfaces.js';

export type Xml = XMLBuilder;
const FORBIDDEN =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
export const xmlText = (text: string): string => text.replace(FORBIDDEN, '');
export const xmlRoot = (): Xml => create({ version: '1.0', encoding: 'UTF-8' });
export const xmlString = (root: Xml, pretty = true): string =>
  `${root.end({ prettyPrint: pretty, indent: '  ' })}\n`;
