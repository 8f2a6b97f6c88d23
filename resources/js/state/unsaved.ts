/** What somebody wrote and the server does not have yet: it outlives a reload of the page, in this browser. */
export type Unsaved<File> = { file: File; version: number; at: string };

/* A store of the browser, which may be full or switched off: then nothing outlives a reload, and all else goes on. */
type Shelf = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

export class UnsavedDraft<File> {
    private readonly key: string;

    constructor(
        person: number,
        rule: number,
        private readonly shelf: Shelf = localStorage,
    ) {
        this.key = `unsaved:${person}:${rule}`;
    }

    /** @param version of the draft that it was written upon */
    put(file: File, version: number): void {
        try {
            this.shelf.setItem(this.key, JSON.stringify({ file, version, at: new Date().toISOString() }));
        } catch {
            // There is no room for it.
        }
    }

    clear(): void {
        try {
            this.shelf.removeItem(this.key);
        } catch {
            // Nor was there before.
        }
    }

    take(): Unsaved<File> | null {
        try {
            return JSON.parse(this.shelf.getItem(this.key) ?? 'null') as Unsaved<File> | null;
        } catch {
            return null;
        }
    }
}
