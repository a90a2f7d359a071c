/** A source opened from the library, without a script. */
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api } from '../api.ts';
import { Missing } from '../shell/Missing.tsx';
import { Rail } from '../shell/Rail.tsx';
import { SourceDesk } from './SourceDesk.tsx';

export function SourcePage() {
  const { id } = useParams();
  const navigate = useNavigate();
  const source = useQuery({
    queryKey: ['source', id],
    queryFn: () => api.source(id!),
    refetchOnWindowFocus: false,
  });
  const title = source.data?.document.title;
  useEffect(() => void (document.title = `${title ?? 'Source'} · Ursprung`), [title]);
  if (source.isError) return <Missing what={source.error.message} />;
  if (!source.data) return <div className="h-full bg-sheet" aria-busy="true" />;
  return (
    <div className="screen">
      <Rail />
      <div className="flex-1 min-w-0 flex flex-col">
        <header className="deskhead border-b border-mark">
          <h1 className="font-serif text-[18px] font-medium flex-1 truncate">{title}</h1>
          <button className="press" onClick={() => navigate(`/begin?source=${source.data.id}`)}>
            Begin a script from it
          </button>
        </header>
        <SourceDesk source={source.data} letter="A" heard={null} />
      </div>
    </div>
  );
}
