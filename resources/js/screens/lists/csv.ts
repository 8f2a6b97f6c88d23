/** The rows of a CSV text (RFC 4180). */
export function rowsOf(text: string): string[][] {
    const rows: string[][] = [];
    let row: string[] = [];
    let cell = '';
    let quoted = false;
    const source = text.replace(/^\uFEFF/, '');
    for (let at = 0; at < source.length; at++) {
        const sign = source[at] ?? '';
        if (quoted) {
            if (sign !== '"') cell += sign;
            else if (source[at + 1] === '"') {
                cell += '"';
                at++;
            } else quoted = false;
        } else if (sign === '"' && cell === '') quoted = true;
        else if (sign === ',') {
            row.push(cell);
            cell = '';
        } else if (sign === '\n' || sign === '\r') {
            if (sign === '\r' && source[at + 1] === '\n') at++;
            rows.push([...row, cell]);
            row = [];
            cell = '';
        } else cell += sign;
    }
    if (cell !== '' || row.length) rows.push([...row, cell]);
    return rows;
}

/** A CSV text of rows (RFC 4180). */
export function csvOf(rows: string[][]): string {
    const cell = (text: string) => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
    return rows.map((row) => `${row.map(cell).join(',')}\r\n`).join('');
}
