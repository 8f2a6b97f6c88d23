import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';

export default defineConfig({
    plugins: [laravel({ input: ['resources/js/main.ts', 'resources/css/slip.css', 'resources/js/slip.ts'] }), tailwindcss(), svelte()],
    resolve: { alias: { $js: '/resources/js' } },
    build: { chunkSizeWarningLimit: 900 },
});
