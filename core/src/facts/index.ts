export * from './centrality.ts';
export * from './extract.ts';
export * from './facts.ts';
