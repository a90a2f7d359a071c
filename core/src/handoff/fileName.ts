/** Names that every file system takes: no path, no signs, none of the device names of old systems, at most 60 letters. */
const RESERVED = /^(?:con|prn|aux|nul|com\d|lpt\d)$/;

/** A file name from a title: letters, figures and hyphens. */
export function fileName(title: string, extension: string): string {
  const stem = stemOf(title);
  return `${stem || 'script'}.${extension}`;
}

export function stemOf(title: string): string {
  const stem = title
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
    .replace(/-+$/, '');
  return RESERVED.test(stem) ? `${stem}-script` : stem;
}
