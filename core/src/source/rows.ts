/** A table as rows to read: cells parted by semicolons, each row knowing what the columns are called. */
export interface TableRow {
  text: string;
  heads?: string[];
}

/** Rows of a table; where the first is one of heads, it is a row too. Rows without a word are left out. */
export function rowsOf(cells: readonly (readonly string[])[], headed: boolean): TableRow[] {
  const heads = headed && cells[0]?.some(Boolean) ? [...cells[0]] : undefined;
  return cells
    .map((row, i) => ({
      text: row.filter(Boolean).join('; '),
      ...(heads && i > 0 && row.length > 1 ? { heads } : {}),
    }))
    .filter((r) => r.text);
}
