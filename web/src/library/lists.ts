/** What several screens ask of the library. Everything under one name, so that one change makes all of it anew. */
import { useQuery } from '@tanstack/react-query';
import { api } from '../api.ts';

export const CHANNELS = ['library', 'channels'] as const;
export const useChannels = () => useQuery({ queryKey: CHANNELS, queryFn: api.channels });
export const useSourceNames = () => useQuery({ queryKey: ['library', 'names'], queryFn: api.sourceNames });
