import { adapter as svelte } from '@wuchale/svelte';
import { defineConfig } from 'wuchale';
import { adapter as script } from 'wuchale/adapter-vanilla';
import { saysSomething } from './bin/lib/words.mjs';

// What the screens say is written in English where it stands, and found there; lang/screens has it in other languages (GNU gettext PO).
// `say` marks a single word of a script; `counted` takes its forms.
const patterns = [
    { name: 'say', args: ['message'] },
    { name: 'counted', args: ['other', 'message', 'pluralFunc'] },
];
const heuristic = saysSomething;
// A language is there before the first screen is, and another one begins with a new page: nothing changes under way.
const runtime = { initReactive: () => false, useReactive: false };

// The library has the words of a script inside its functions only; here they are there before the script, for its tables as well.
const atTop = (adapter) => ({
    ...adapter,
    transform: (given) => {
        const done = adapter.transform(given);
        return { ...done, output: (header) => done.output(`${header}\nconst _w_runtime_ = ${given.expr.plain};`) };
    },
});

export default defineConfig({
    locales: ['en', 'de'],
    localesDir: 'lang/screens',
    ai: null,
    adapters: {
        // The page of all parts is for those who build the screens.
        screens: svelte({
            files: { include: 'resources/js/**/*.svelte', ignore: 'resources/js/screens/parts/**' },
            loader: 'svelte',
            heuristic,
            patterns,
            runtime,
        }),
        scripts: atTop(
            script({
                files: { include: 'resources/js/**/*.ts', ignore: ['**/*.d.ts', 'resources/js/{main,slip,theme,router}.ts'] },
                loader: 'vite',
                heuristic,
                patterns,
                runtime: { initReactive: () => null, useReactive: false },
            }),
        ),
    },
});
