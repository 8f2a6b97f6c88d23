import { svelte } from '@sveltejs/vite-plugin-svelte';
import { readdirSync } from 'node:fs';
import { defineConfig } from 'vite';

// Bundles each test with what it tests, so that Node's own runner can take it.
const here = import.meta.dirname;
const tests = readdirSync(here).filter((name) => name.endsWith('.test.ts'));

export default defineConfig({
    plugins: [svelte()],
    build: {
        ssr: true,
        outDir: `${here}/../../.runtime/screens`,
        emptyOutDir: true,
        rollupOptions: { input: tests.map((name) => `${here}/${name}`) },
    },
});
