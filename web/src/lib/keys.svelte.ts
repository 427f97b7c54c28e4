/** Keys that work anywhere on a rig's pages, unless something is being typed. */
import { glossary } from './glossary.svelte';
import { recorder } from './recorder.svelte';
import { openRig } from './openrig.svelte';
import { goToPath, route } from './navigation';
import { placePath, rigOf, type Place } from './paths';
import { preferences } from './preferences.svelte';
import { lookAt } from './wanted';

/** The place a digit stands for: stages by their number in the rail, the logbook last. */
function placeOf(digit: string): Place | null {
  if (digit === '0') return 'now';
  if (digit === '9') return 'logbook';
  return openRig.assessment?.stages.find((stage) => `${stage.number}` === digit)?.key ?? null;
}

/** The rig that is on the page: keys act on no other. */
const rigHere = (): string | null => {
  const rig = rigOf(route.pathname);
  return rig === openRig.rig ? rig : null;
};

class Keys {
  helpOpen = $state(false);
  #draw: (() => void) | null = null;

  /** Let `d` draw the bow while its drawing is on the page; call the answer to let go. */
  onDraw(draw: () => void): () => void {
    this.#draw = draw;
    return () => {
      if (this.#draw === draw) this.#draw = null;
    };
  }

  handle = (event: KeyboardEvent): void => {
    const typing = isTyping(event.target);
    // behind an open dialog nothing is done
    if (document.querySelector('[role=dialog][data-state=open], [role=alertdialog]')) return;
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      if ((isText(event.target) && event.target.value) || !rigHere()) return;
      event.preventDefault();
      void (event.shiftKey ? recorder.redo() : recorder.undo());
      return;
    }
    if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
    this.#press(event);
  };

  #press(event: KeyboardEvent): void {
    if (!preferences.keys && event.key !== '?') return;
    const rig = rigHere();
    const place = rig && placeOf(event.key);
    if (place) void goToPath(placePath(rig, place));
    else if (event.key === 'f' && rig) toFindings();
    else if (event.key === 'w' || event.key === 'W') glossary.walk(event.key === 'W');
    else if (event.key === 'j') document.getElementById('jot')?.focus();
    else if (event.key === 'd' && rig) void this.#drawBow(rig);
    else if (event.key === 'u') preferences.nextUnits();
    else if (event.key === '?') this.helpOpen = true;
    else return;
    event.preventDefault();
  }

  async #drawBow(rig: string): Promise<void> {
    if (!this.#draw) await goToPath(placePath(rig, 'bow'));
    this.#draw?.();
  }
}

/** The first finding takes the focus: from there keys walk them. */
function toFindings(): void {
  const list = document.querySelector('section[aria-labelledby=findings-title]');
  const first = list?.querySelector<HTMLElement>('[data-finding]');
  lookAt(first ?? document.getElementById('findings-title'));
}

function isText(target: EventTarget | null): target is HTMLInputElement {
  return target instanceof HTMLElement && target.matches('input:not([type=checkbox]), textarea');
}

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches('input, textarea, select');
}

export const keys = new Keys();
