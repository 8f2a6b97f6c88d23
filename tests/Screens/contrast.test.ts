import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';

/* Every ink on every paper it is used on can be read, by day and by night (WCAG 2.2, AA: 4.5 to 1 for text; AAA, 7, with more contrast). */

type Look = { name: string; least: number; of: (token: string) => string };

const css = readFileSync('resources/css/tokens.css', 'utf8');
const usual = css.slice(css.indexOf(':root {'), css.indexOf(":root[data-scheme='light']"));
const more = css.slice(css.indexOf(":root[data-contrast='more'] {"), css.indexOf(":root[data-contrast='more'] :is"));

/** The two colours of every token, by day and by night; one that names another is that. */
function tokensOf(text: string): Record<string, [string, string]> {
    const colour = '#[0-9a-f]{3,8}';
    return Object.fromEntries(
        [...text.matchAll(new RegExp(`--([\\w-]+): (?:light-dark\\((${colour}), (${colour})\\)|(${colour}));`, 'g'))].map(
            ([, name, day, night, both]) => [name, [day ?? both, night ?? both]],
        ),
    ) as Record<string, [string, string]>;
}

const tokens = tokensOf(usual);
const strong = { ...tokens, ...tokensOf(more) };
const whole = (colour: string) => (colour.length === 4 ? `#${[...colour.slice(1)].map((digit) => digit + digit).join('')}` : colour);
const looks: Look[] = [
    { name: 'by day', least: 4.5, of: (token) => whole(tokens[token]![0]) },
    { name: 'by night', least: 4.5, of: (token) => whole(tokens[token]![1]) },
    { name: 'by day with more contrast', least: 7, of: (token) => whole(strong[token]![0]) },
    { name: 'by night with more contrast', least: 7, of: (token) => whole(strong[token]![1]) },
];

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

for (const { name, least, of } of looks)
    for (const [ink, paper] of pairs)
        test(`${ink} on ${paper} ${name}`, () => {
            const found = ratio(of(ink), of(paper));
            // A wash is a tint of its page: what stands on it is large, or bold.
            const wanted = paper.endsWith('-wash') ? 4.5 : least;
            assert.ok(found >= wanted, `${of(ink)} on ${of(paper)} is ${found.toFixed(2)} to 1`);
        });

test('what is written on a colour', () => {
    for (const { name, of } of looks) assert.ok(ratio(of('on-iris'), of('iris')) >= 4.5, `on iris ${name}`);
    for (const { name, of } of looks)
        for (const ink of ['#ffffff', '#cfc8ee', '#b0a8d8', '#b8b0d8']) assert.ok(ratio(ink, of('spine')) >= 4.5, `${ink} ${name}`);
    assert.ok(ratio('#ffffff', '#b93f28') >= 4.5, 'a count');
    // A notice is written in the colour of the page on ink, or on madder.
    for (const { name, of } of looks)
        for (const paper of ['ink', 'madder']) assert.ok(ratio(of('page'), of(paper)) >= 4.5, `${paper} ${name}`);
});

test('colour never carries meaning alone: every tone of a choice goes with its own word', () => {
    const yaml = readFileSync('database/demo/record-types/ticket.yaml', 'utf8');
    for (const [line] of yaml.matchAll(/.*tone:.*/g)) assert.match(line, /label: \w+/);
});
