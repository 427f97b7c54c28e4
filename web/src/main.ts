import { mount } from 'svelte';
import App from './App.svelte';
import './app.css';
import { openRig } from './lib/openrig.svelte';
import { rigOf, stageOf } from './lib/paths';

// an address that cannot be decoded is taken as it is written, and leads nowhere
try {
  decodeURIComponent(location.pathname);
} catch {
  history.replaceState(null, '', location.pathname.replaceAll('%', '%25'));
}

const rig = rigOf(location.pathname);
if (rig) openRig.openEarly(rig, stageOf(location.pathname));

const target = document.getElementById('app');
if (target) mount(App, { target });
