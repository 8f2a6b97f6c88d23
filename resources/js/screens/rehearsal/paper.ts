import type { Played } from './rehearsal.svelte';

type Entry = Played['entries'][number];
type Line = Played['struck'][number];
export type Row = { key: string; at: number | null; entry?: Entry; line?: Line };

/** What a rehearsal shows from top to bottom: what happens, and what was struck out, where it would have stood. */
export function paperRows(played: Played): Row[] {
    const rows: Row[] = [];
    const placed = new Set(played.struck.filter((line) => line.due).map((line) => line.entry));
    for (const entry of played.entries) {
        // Its lines stand at their own moments.
        if (placed.has(entry.entry.number)) continue;
        rows.push({ key: `e${entry.entry.number}`, at: Date.parse(entry.entry.at), entry });
    }
    played.struck.forEach((line, index) => line.due && rows.push({ key: `s${index}`, at: Date.parse(line.due), line }));
    played.left.forEach((line, index) => rows.push({ key: `l${index}`, at: line.due ? Date.parse(line.due) : null, line }));
    return rows
        .map((row, index) => ({ row, index }))
        .sort((one, other) => (one.row.at ?? Infinity) - (other.row.at ?? Infinity) || one.index - other.index)
        .map(({ row }) => row);
}
