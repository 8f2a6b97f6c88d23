import '../css/app.css';
import { mount } from 'svelte';
import { loadLocale } from 'wuchale/load-utils';
import '../../lang/screens/screens.loader.svelte.js';
import '../../lang/screens/scripts.loader.js';
import { language } from './state/language.svelte';

// The words come first: what the screens say is in one language from their first line on.
await loadLocale(language.code);
const { default: App } = await import('./application');
const target = document.getElementById('app');
target?.replaceChildren();
if (target) mount(App, { target });

// A page that says so where there is no connection; it keeps nothing else.
if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/worker.js').catch(() => undefined);
