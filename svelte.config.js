import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

export default {
    preprocess: vitePreprocess(),
    vitePlugin: {
        // One line of style in the library would be a file of its own for every page.
        dynamicCompileOptions: ({ filename }) => (filename.includes('flowbite-svelte') ? { css: 'injected' } : undefined),
    },
};
