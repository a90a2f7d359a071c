/** The pictures of the scenes, asked of the server a little after the last change; the breaks themselves are the page's own. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Film, Picture } from '@ursprung/core/scenes/desk';
import { api } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';

const AFTER_MS = 700;

export interface FilmState {
  film: Film | null;
  pictures: ReadonlyMap<string, Picture>;
  /** A newer one is on its way. */
  waiting: boolean;
  error: string | null;
}

export function useFilm(session: ScriptSession): FilmState {
  const sections = useSnapshot(session, (s) => s.sections);
  const taken = useSnapshot(session, (s) => s.settingsTaken);
  const [asked, setAsked] = useState(sections);
  useEffect(() => {
    const timer = setTimeout(() => setAsked(sections), AFTER_MS);
    return () => clearTimeout(timer);
  }, [sections]);
  const query = useQuery({
    queryKey: ['film', session.script.id, asked, taken],
    queryFn: () => api.film(session.script.id, asked),
    placeholderData: keepPreviousData,
    retry: 1,
    gcTime: 0,
  });
  const film = query.data ?? null;
  return {
    film,
    pictures: new Map((film?.pictures ?? []).map((p) => [p.scene, p])),
    waiting: query.isFetching || asked !== sections,
    error: query.error?.message ?? null,
  };
}
