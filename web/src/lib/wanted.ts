/** Letting a finding's action put the cursor into its control. */
import type { Attachment } from 'svelte/attachments';
import { openRig } from './openrig.svelte';

/** Attach to the element that stands for a control: named, it comes into view and takes the focus. */
export function wanted(name: string): Attachment<HTMLElement> {
  return (node) => {
    node.dataset.control = name;
    if (openRig.wanted?.control !== name) return;
    node.scrollIntoView({ block: 'center' });
    node.focus();
    openRig.wanted = null;
  };
}
