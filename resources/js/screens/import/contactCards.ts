import ICAL from 'ical.js';

/** What a card can say, by the names under which a table has it. */
const COLUMNS: [string, (card: ICAL.Component) => string][] = [
    ['Name', (card) => text(card, 'fn') || nameOf(card)],
    ['Email', (card) => text(card, 'email')],
    ['Phone', (card) => text(card, 'tel').replace(/^tel:/, '')],
    ['Organisation', (card) => first(card, 'org')],
    ['Role', (card) => text(card, 'title') || text(card, 'role')],
    ['Website', (card) => text(card, 'url')],
    ['Notes', (card) => text(card, 'note')],
];

/** From 1, what is preferred most, to 100 (RFC 6350, 5.3); what says nothing comes behind. In version 3 a type says it. */
function preference(one: ICAL.Property): number {
    const said = Number(one.getFirstParameter('pref'));
    if (said >= 1 && said <= 100) return said;
    return [one.getParameter('type') ?? []].flat().some((type) => String(type).toLowerCase() === 'pref') ? 1 : 101;
}

function text(card: ICAL.Component, name: string): string {
    const [best] = card.getAllProperties(name).sort((one, other) => preference(one) - preference(other));
    return plain(best?.getFirstValue());
}

/** A semicolon has a backslash before it where it parts nothing, too (RFC 6350, 3.4). */
function plain(value: unknown): string {
    return String(value ?? '')
        .replaceAll('\\;', ';')
        .trim();
}

function first(card: ICAL.Component, name: string): string {
    const value = card.getFirstPropertyValue(name);
    return plain(Array.isArray(value) ? value[0] : value);
}

function nameOf(card: ICAL.Component): string {
    const value = card.getFirstPropertyValue('n');
    const [last = '', given = ''] = Array.isArray(value) ? value.map(String) : [];
    return `${given} ${last}`.trim();
}

/** Cards (vCard 3 and 4, RFC 6350) as the rows of a table, its head first; what none of them says is left out. */
export function rowsOfCards(file: string): string[][] {
    const parsed = ICAL.parse(file) as unknown;
    const list = (Array.isArray(parsed) && typeof parsed[0] === 'string' ? [parsed] : parsed) as unknown[][];
    const cards = list.map((one) => new ICAL.Component(one as never)).filter((one) => one.name === 'vcard');
    if (cards.length === 0) throw new Error('There is no card in this file.');
    const rows = cards.map((card) => COLUMNS.map(([, read]) => read(card)));
    const said = COLUMNS.map((_, index) => index === 0 || rows.some((row) => row[index] !== ''));
    const kept = (row: string[]) => row.filter((_, index) => said[index]);
    return [kept(COLUMNS.map(([name]) => name)), ...rows.map(kept)];
}
