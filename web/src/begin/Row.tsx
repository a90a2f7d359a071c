/** A row of the brief: its name, and what is chosen. */
export function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="grid grid-cols-[70px_1fr] py-2 border-b border-hair">
      <span className="text-ink3 pt-1">{name}</span>
      <div>{children}</div>
    </div>
  );
}
