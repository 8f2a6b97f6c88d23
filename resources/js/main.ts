import '../css/app.css';
import { mount } from 'svelte';
import App from './App.svelte';

const target = document.getElementById('app');
if (target) mount(App, { target });

// A page that says so where there is no connection; it keeps nothing else.
if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/worker.js').catch(() => undefined);
