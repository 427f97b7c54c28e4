import { mount } from 'svelte';
import App from './App.svelte';
import './app.css';
import { bench } from './lib/bench.svelte';
import { stageOf } from './lib/paths';

const rig = /^\/rigs\/([^/]+)/.exec(location.pathname)?.[1];
if (rig) bench.openEarly(decodeURIComponent(rig), stageOf(location.pathname));

const target = document.getElementById('app');
if (target) mount(App, { target });
