/** The left rail: home, channels, theme. */
import { NavLink } from 'react-router';
import { useChannels } from '../library/lists.ts';

export function Rail({ channel }: { channel?: string }) {
  const channels = useChannels();
  return (
    <nav className="rail" aria-label="Channels and library">
      <NavLink
        to="/"
        className="h-11 w-10 shrink-0 flex items-center justify-center"
        aria-label="Ursprung: library"
      >
        <svg width="18" height="18" viewBox="0 0 16 16" aria-hidden="true">
          <path d="M3 13C3 7 7 3 13 3" fill="none" stroke="var(--ink)" strokeWidth="1.8" />
          <circle cx="3" cy="13" r="2" fill="var(--ink)" />
        </svg>
      </NavLink>
      {(channels.data ?? []).slice(0, 4).map((c) => (
        <NavLink
          key={c.id}
          to={`/?channel=${c.id}`}
          className={`channel ${c.name === channel ? 'bg-bench font-semibold text-ink' : 'text-ink2'}`}
        >
          <span>{c.name}</span>
        </NavLink>
      ))}
      <span className="flex-1" />
      <NavLink
        to="/"
        end
        className={({ isActive }) =>
          `channel ${isActive && !channel ? 'bg-bench font-semibold text-ink' : 'text-ink2'}`
        }
      >
        <span>Library</span>
      </NavLink>
    </nav>
  );
}
