import App from './App.svelte';
import { preload } from './router';
import { session } from './state/session.svelte';

// What every screen waits for is asked for before the first of them is put together.
void session.begin();
if (session.isExpected()) void preload(location.pathname);

export default App;
