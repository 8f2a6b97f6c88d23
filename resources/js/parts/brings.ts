import type { Resources } from '../api/client';
import { split, type JsonObject } from '../state/pointer';
import type { Row } from './words';

type Begun = Resources['BegunResource'];

/** What stands for the line's own name in the lines that it brings. */
const NAME = '"…"';
const END = 'in_all_cases';
const HEADINGS = ['if', 'or_if', 'otherwise', END];
/** Cases stand in cases once. */
const DEEPEST = 1;

/** Whether the row of a line is the heading of a case, and not the end of all of them. */
export const opensCase = (row: Row, lines: JsonObject[]): boolean => row.heading && lines[Number(split(row.at)[1])]?.kind !== END;

/** How far lines stand in that come behind the row of a line. */
export const standsIn = (above: Row | undefined, lines: JsonObject[]): number =>
    above ? above.indent + (opensCase(above, lines) ? 1 : 0) : 0;

/** Whether nothing stands in the case that a row is the heading of. */
export function isEmptyCase(rows: Row[], row: Row, lines: JsonObject[]): boolean {
    const next = rows[rows.indexOf(row) + 1];
    return opensCase(row, lines) && (next === undefined || next.indent <= row.indent);
}

/**
 * The lines of a page with what one of them brings along behind it: nothing where its cases would stand too deep. What stood behind
 * it stays outside of them.
 */
export function broughtBy(lines: JsonObject[], index: number, offer: Begun, deep: number): JsonObject[] {
    const line = lines[index];
    if (!line || !offer.brings.length || deep > DEEPEST) return lines;
    const taken = new Set(lines.map((one) => one.key));
    let name = typeof line.key === 'string' ? line.key : offer.kind;
    for (let number = 2; line.key === undefined && taken.has(name); number++) name = `${offer.kind}_${number}`;
    const within: JsonObject = deep > 0 ? { inner: true } : {};
    const brought = JSON.parse(JSON.stringify(offer.brings).replaceAll(NAME, JSON.stringify(name))) as JsonObject[];
    const behind = lines.slice(index + 1);
    // Another heading that follows closes them already.
    const closes = behind.length > 0 && !HEADINGS.includes(String(behind[0]?.kind));
    const end: JsonObject[] = closes ? [{ kind: END, ...within }] : [];
    const headings = [...brought.map((one): JsonObject => ({ ...one, ...within })), ...end];
    return [...lines.slice(0, index), { ...line, key: name }, ...headings, ...behind];
}
