import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';
import { wuchale } from 'wuchale/vite';

type Modules = { getModuleInfo(id: string): { importers: string[]; dynamicImporters: string[] } | null };

/** Packages that are one long list of exports, by which nobody could tell who wants what: what the first line needs of them, */
const FIRST = /node_modules\/(svelte|wuchale)\//;
/** what the frame around every screen needs, */
const FRAME = [
    /flowbite-svelte\/dist\/(theme|utils|toast|toolbar|context|uiHelpers|forms\/input-field)/,
    /node_modules\/(@tanstack|sv-router|tailwind-variants|@lucide)\//,
];
/** and what screens need; the calendar comes when a date is opened. */
const LIBRARY = /flowbite-svelte\/dist\/(?!datepicker)/;

/**
 * Which file a module comes in. A file for each would be eighty requests for one screen: what is needed before the words are there
 * is one, the application without its screens another, what two screens or more share a third, and each screen is its own.
 */
function fileOf(id: string, modules: Modules): string | null {
    // It waits for the words and then for the application, which would wait for it if it shared a file with anything.
    if (id.endsWith('/js/main.ts')) return null;
    const from = new Set<string>();
    const seen = new Set<string>();
    const rest = [id];
    for (let at = rest.pop(); at !== undefined; at = rest.pop()) {
        if (seen.has(at)) continue;
        seen.add(at);
        const info = modules.getModuleInfo(at);
        if (FIRST.test(at)) from.add('first');
        else if (FRAME.some((pattern) => pattern.test(at))) from.add('frame');
        else if (/\/js\/(main|slip)\.ts$/.test(at) || (info?.dynamicImporters.length ?? 0) > 0) from.add(at);
        // Who imports a package's list of everything need not want everything of it.
        rest.push(...(info?.importers ?? []).filter((importer) => !/node_modules\/.*\/index\.m?js$/.test(importer)));
    }
    const leads = (pattern: RegExp) => [...from].some((start) => pattern.test(start));
    if (leads(/\/slip\.ts$/)) return null;
    if (leads(/^first$|\/main\.ts$/)) return 'first';
    if (leads(/^frame$|\/application\.ts$/)) return 'application';
    return from.size > 1 || LIBRARY.test(id) ? 'shared' : null;
}

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
        rolldownOptions: {
            output: {
                codeSplitting: {
                    groups: [
                        { name: fileOf },
                        { name: 'icons', minShareCount: 2, test: /@lucide/ },
                        { name: 'shared', minShareCount: 2, test: /flowbite-svelte/ },
                    ],
                    includeDependenciesRecursively: false,
                },
            },
            treeshake: { moduleSideEffects: [{ test: /flowbite-svelte\/dist/, sideEffects: false }] },
        },
    },
});
