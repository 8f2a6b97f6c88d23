import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';

/* Every ink on every paper it is used on can be read (WCAG 2.2, AA: 4.5 to 1 for text). */

const css = ['tokens', 'shell', 'words', 'parts'].map((name) => readFileSync(`resources/css/${name}.css`, 'utf8')).join('\n');
const tokens = Object.fromEntries([...css.matchAll(/--([\w-]+):\s*(#[0-9a-f]{6});/g)].map(([, name, value]) => [name, value])) as Record<
    string,
    string
>;

function luminance(colour: string): number {
    const [red, green, blue] = [1, 3, 5].map((at) => {
        const part = parseInt(colour.slice(at, at + 2), 16) / 255;
        return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
    }) as [number, number, number];
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

function ratio(one: string, other: string): number {
    const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [number, number];
    return (light + 0.05) / (dark + 0.05);
}

const pairs: [ink: string, paper: string][] = [
    ...['ink', 'ink-2', 'ink-3', 'iris', 'fern', 'marigold', 'madder', 'harbor', 'pencil'].map((ink): [string, string] => [ink, 'page']),
    ...['ink', 'ink-2', 'iris'].map((ink): [string, string] => [ink, 'desk']),
    ...['iris', 'fern', 'marigold', 'madder', 'harbor'].map((ink): [string, string] => [ink, `${ink}-wash`]),
    ['ink', 'iris-wash'],
    ['ink', 'madder-wash'],
];

for (const [ink, paper] of pairs)
    test(`${ink} on ${paper}`, () => {
        assert.ok(tokens[ink] && tokens[paper], 'both are tokens');
        const found = ratio(tokens[ink], tokens[paper]);
        assert.ok(found >= 4.5, `${tokens[ink]} on ${tokens[paper]} is ${found.toFixed(2)} to 1`);
    });

test('white on what it is written on', () => {
    for (const paper of [tokens.iris, tokens.spine, tokens.ink, tokens.madder, '#b93f28'])
        assert.ok(ratio('#ffffff', paper!) >= 4.5, `${paper}`);
    for (const ink of ['#cfc8ee', '#b0a8d8']) assert.ok(ratio(ink, tokens.spine!) >= 4.5, `${ink} on the spine`);
});

test('colour never carries meaning alone: every tone of a choice goes with its own word', () => {
    const yaml = readFileSync('database/demo/record-types/ticket.yaml', 'utf8');
    for (const [line] of yaml.matchAll(/.*tone:.*/g)) assert.match(line, /label: \w+/);
});
