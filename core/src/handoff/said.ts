/** Whether a line is heard. */
export const isSaid = (line: { text: string }): boolean => /[\p{L}\p{N}]/u.test(line.text);
