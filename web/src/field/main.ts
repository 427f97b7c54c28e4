/** The field helper: served by the bench, or carried as one file. */
import '@fontsource-variable/commissioner/wght.css';
import { mount } from 'svelte';
import '../theme.css';
import Field from './Field.svelte';
import './field.css';
import type { FieldTable } from './learn';
import { Round } from './round.svelte';

const carried = JSON.parse(
  document.getElementById('carried')?.textContent ?? 'null',
) as FieldTable | null;
const rig = carried?.rig ?? location.pathname.split('/')[2] ?? '';
const dark = matchMedia('(prefers-color-scheme: dark)');
const shade = () => (document.documentElement.dataset.mode = dark.matches ? 'dark' : 'light');
shade();
dark.addEventListener('change', shade);

// served, it opens without the bench too, once it was opened with it
if (!carried && 'serviceWorker' in navigator) {
  void navigator.serviceWorker.register('/field-worker.js', { scope: '/field/' }).catch(() => {});
}

const target = document.getElementById('field');
if (target) mount(Field, { target, props: { round: new Round(rig, carried) } });
