import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

/*
 * What a browser loads before the sign-in page shows, compressed, in kB; exits 1 when it is more than it may be.
 *
 *   node bin/lib/first-load.mjs     behind a build
 */
const MOST = { script: 120, style: 25 };
const build = 'public/build';
const manifest = JSON.parse(readFileSync(`${build}/manifest.json`, 'utf8'));
const files = { script: new Set(), style: new Set() };

function gather(key) {
    const chunk = manifest[key];
    if (!chunk || files.script.has(chunk.file)) return;
    files.script.add(chunk.file);
    for (const style of chunk.css ?? []) files.style.add(style);
    for (const further of chunk.imports ?? []) gather(further);
    for (const words of chunk.dynamicImports ?? []) if (/\.en\.compiled\.js$/.test(words)) gather(words);
}

// The entry asks for the words of one language, and then for the application.
for (const entry of Object.keys(manifest).filter((key) => manifest[key].isEntry)) {
    gather(entry);
}
gather('resources/js/application.ts');
let isOver = false;
for (const [kind, names] of Object.entries(files)) {
    const bytes = [...names].reduce((sum, name) => sum + gzipSync(readFileSync(`${build}/${name}`)).length, 0);
    const size = bytes / 1000;
    isOver ||= size > MOST[kind];
    console.log(`first load: ${size.toFixed(1)} kB of ${kind}, compressed (at most ${MOST[kind]})`);
}
process.exit(isOver ? 1 : 0);
