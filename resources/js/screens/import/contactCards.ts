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

function text(card: ICAL.Component, name: string): string {
    // Of several the one that is preferred, else the first.
    const all = card.getAllProperties(name);
    const isPreferred = (one: ICAL.Property) =>
        String(one.getFirstParameter('pref') ?? '') !== '' || [one.getParameter('type') ?? []].flat().includes('pref');
    return String((all.find(isPreferred) ?? all[0])?.getFirstValue() ?? '').trim();
}

function first(card: ICAL.Component, name: string): string {
    const value = card.getFirstPropertyValue(name);
    return String(Array.isArray(value) ? (value[0] ?? '') : (value ?? '')).trim();
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
