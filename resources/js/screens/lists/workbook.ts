import writeXlsxFile, { type SheetData } from 'write-excel-file/browser';
import { rowsOf } from './csv';

/** Saves what a CSV file says as a workbook (XLSX): numbers as numbers, all else as text. */
export async function saveWorkbook(csv: string, name: string): Promise<void> {
    const [head = [], ...rows] = rowsOf(csv);
    const cell = (text: string) =>
        // A number of more digits than a table program keeps stays a text.
        /^-?\d{1,15}(\.\d+)?$/.test(text) && !/^-?0\d/.test(text)
            ? { value: Number(text), type: Number }
            : { value: text.replace(/^'(?=[=+\-@])/, ''), type: String };
    const sheet: SheetData = [head.map((text) => ({ value: text, fontWeight: 'bold' as const })), ...rows.map((row) => row.map(cell))];
    await writeXlsxFile(sheet).toFile(`${name}.xlsx`);
}
