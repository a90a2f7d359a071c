/** For whom a kit is. */
export const RECIPIENTS = ['voice', 'editor', 'translator', 'uploader', 'archive'] as const;
export type Recipient = (typeof RECIPIENTS)[number];
