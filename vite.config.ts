import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';
import { wuchale } from 'wuchale/vite';

export default defineConfig({
    plugins: [
        laravel({ input: ['resources/js/main.ts', 'resources/css/slip.css', 'resources/js/slip.ts'] }),
        tailwindcss(),
        wuchale(),
        svelte(),
    ],
    resolve: { alias: { $js: '/resources/js' } },
    build: {
        chunkSizeWarningLimit: 900,
        // The library does not say so of itself: of its hundred parts only those that are named are wanted, with their looks.
        rolldownOptions: { treeshake: { moduleSideEffects: [{ test: /flowbite-svelte\/dist/, sideEffects: false }] } },
    },
});
