/** Letting a finding's action put the cursor into its control, and an answer come into view. */
import type { Attachment } from 'svelte/attachments';
import { openRig } from './openrig.svelte';

/** Attach to the element that stands for a control: named, it comes into view and takes the focus. */
export function wanted(name: string): Attachment<HTMLElement> {
  return (node) => {
    node.dataset.control = name;
    if (openRig.wanted?.control !== name) return;
    const fold = node.closest('details');
    if (fold) fold.open = true;
    node.scrollIntoView({ block: 'center' });
    node.focus();
    openRig.wanted = null;
  };
}

/** Bring a part of the page into view, and let it be read out. */
export function lookAt(node: HTMLElement | null | undefined): void {
  node?.scrollIntoView({ block: 'start' });
  node?.focus({ preventScroll: true });
}

/** Attach to what was waited for: when it comes, it is looked at. */
export function arrived(node: HTMLElement): void {
  node.tabIndex = -1;
  lookAt(node);
}
