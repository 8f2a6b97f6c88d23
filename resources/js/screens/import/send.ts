import { api, ask, Refusal, sendRaw, type Resources } from '../../api/client';
import { csvOf } from '../lists/csv';

const PIECE = 1_000_000;
const MOST = 50_000_000;

/** A workbook's first sheet, and cards, become the text of a table; a table of text is sent as it is. */
async function bytesOf(file: File): Promise<Blob> {
    if (/\.(vcf|vcard)$/i.test(file.name)) {
        const { rowsOfCards } = await import('./contactCards');
        try {
            return new Blob([csvOf(rowsOfCards(await file.text()))]);
        } catch {
            throw new Error('These cards cannot be read. Save them once more as vCard (.vcf), or as CSV.');
        }
    }
    if (!/\.xlsx$/i.test(file.name)) return file;
    const { rowsOfWorkbook } = await import('./workbook');
    try {
        return new Blob([csvOf(await rowsOfWorkbook(file))]);
    } catch {
        throw new Error('This workbook cannot be read. Save it once more as .xlsx, or as CSV.');
    }
}

async function put(path: string, piece: Blob): Promise<void> {
    for (let tries = 0; ; tries++) {
        try {
            await sendRaw(path, { method: 'PUT', body: piece, type: 'application/octet-stream' });
            return;
        } catch (thrown) {
            // A piece that got lost on its way is sent again.
            if (thrown instanceof Refusal || tries >= 4) throw thrown;
            await new Promise((resolve) => setTimeout(resolve, 500 * 2 ** tries));
        }
    }
}

/** Sends a file in pieces and has it read. */
export async function send(type: string, file: File, onprogress: (share: number) => void): Promise<Resources['ImportResource']> {
    if (file.size > MOST) throw new Error(`‘${file.name}’ has ${(file.size / 1e6).toFixed(1)} MB, and at most 50 MB are taken at a time.`);
    const bytes = await bytesOf(file);
    const begun = await ask(api.POST('/api/imports', { body: { recordType: type, name: file.name, bytes: Math.max(1, bytes.size) } }));
    const id = begun.job.id;
    for (let at = 0, place = 0; at < bytes.size; at += PIECE, place++) {
        await put(`/api/imports/${id}/pieces/${place}`, bytes.slice(at, at + PIECE));
        onprogress(Math.min(1, (at + PIECE) / bytes.size));
    }
    return ask(api.POST('/api/imports/{id}/read', { params: { path: { id } } }));
}
