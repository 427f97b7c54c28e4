/** Pages whose code comes when they are opened; when it does not come, that is said. */
import type { Component } from 'svelte';
import NotLoaded from '../components/NotLoaded.svelte';

/** Load a page's code; a page that says so takes its place when it cannot be had. */
export function lazily<P extends object>(
  load: () => Promise<{ default: Component<P> }>,
): () => Promise<{ default: Component<P> | typeof NotLoaded }> {
  const page = () => load().catch(() => ({ default: NotLoaded }));
  // the router knows a page to be loaded by how it is written
  page.toString = () => '() => import()';
  return page;
}
