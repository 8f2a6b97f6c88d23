import { strFromU8, unzipSync } from 'fflate';
import { readSheet } from 'read-excel-file/browser';

/** A number as whoever typed it: a program keeps 0.3 as 0.30000000000000004, and shows no more than fifteen digits. */
export function typed(number: string): string {
    const value = Number(number);
    return Number.isFinite(value) ? String(Number(value.toPrecision(15))) : number;
}

/** A cell of a workbook as the server reads it. */
function written(cell: unknown): string {
    if (cell === null || cell === undefined) return '';
    // Workbooks keep days and moments alike; what has no time of day is a day.
    if (cell instanceof Date) return cell.toISOString().replace(/T00:00:00\.000Z$/, '');
    return String(cell);
}

/** The place of the first sheet that is not hidden, from 1. */
export function firstShown(workbook: Uint8Array): number {
    const parts = unzipSync(workbook, { filter: (part) => part.name === 'xl/workbook.xml' });
    const xml = parts['xl/workbook.xml'] ? strFromU8(parts['xl/workbook.xml']) : '';
    const sheets = xml.match(/<(?:\w+:)?sheet\s[^>]*>/g) ?? [];
    return Math.max(1, sheets.findIndex((sheet) => !/\sstate="(?:hidden|veryHidden)"/.test(sheet)) + 1);
}

/** The rows of the sheet that somebody sees first. */
export async function rowsOfWorkbook(file: Blob): Promise<string[][]> {
    const sheet = firstShown(new Uint8Array(await file.arrayBuffer()));
    const rows = await readSheet<string>(file as File, sheet, { parseNumber: typed });
    return rows.map((row) => row.map(written));
}
