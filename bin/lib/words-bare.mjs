import { readFileSync, readdirSync } from 'node:fs';
import { parse } from 'svelte/compiler';
import { SPOKEN_ATTRIBUTES } from './words.mjs';

/*
 * A single word without a capital looks like a name of the program's: the message files have it only where `say` marks it. This finds
 * those that a screen shows all the same (`{done ? 'done' : 'open'}`) and names where; exits 1 if there is one.
 *
 *   node bin/lib/words-bare.mjs
 */
const BARE = /^[\s,;·(]*\p{Ll}[\p{L}’]*[\s,.;:…)]*$/u;

/** The texts that an expression can come to. */
function* results(node) {
    if (node.type === 'Literal' && typeof node.value === 'string') yield node;
    const parts = {
        ConditionalExpression: () => [node.consequent, node.alternate],
        LogicalExpression: () => [node.left, node.right],
        BinaryExpression: () => [node.left, node.right],
        TemplateLiteral: () => node.expressions,
    };
    for (const part of parts[node.type]?.() ?? []) yield* results(part);
}

function* shown(node) {
    if (node === null || typeof node !== 'object' || (node.type === 'Attribute' && !SPOKEN_ATTRIBUTES.test(node.name))) return;
    if (node.type === 'ExpressionTag') {
        yield* results(node.expression);
        return;
    }
    for (const [name, part] of Object.entries(node)) {
        if (name !== 'expression' && name !== 'metadata') yield* shown(part);
    }
}

const screens = readdirSync('resources/js', { recursive: true }).filter(
    (file) => file.endsWith('.svelte') && !file.startsWith('screens/parts'),
);
const bare = screens.flatMap((file) => {
    const text = readFileSync(`resources/js/${file}`, 'utf8');
    const line = (at) => text.slice(0, at).split('\n').length;
    return [...shown(parse(text, { modern: true }).fragment)]
        .filter((word) => BARE.test(word.value))
        .map((word) => `resources/js/${file}:${line(word.start)}: ‘${word.value}’`);
});
if (bare.length) {
    process.exitCode = 1;
    console.log(`Shown, and not marked by say():\n${bare.join('\n')}`);
}
