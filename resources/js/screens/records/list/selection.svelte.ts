import type { Shapes } from '../../../api/client';

type Row = Pick<Shapes['RecordShape'], 'id' | 'version'>;

/** The records of a list that are chosen, also those on other pages; or all that fit, however many that is. */
export class Selection {
    private chosen = $state<number[]>([]);
    /** Whether all that fit are meant, not only those that were ticked. */
    everything = $state(false);
    /** The version in which each was seen. */
    private readonly versions = new Map<number, number>();

    get ids(): number[] {
        return this.chosen;
    }

    get records(): { id: number; version: number }[] {
        return this.chosen.map((id) => ({ id, version: this.versions.get(id) ?? 0 }));
    }

    has(id: number): boolean {
        return this.everything || this.chosen.includes(id);
    }

    toggle(row: Row): void {
        this.everything = false;
        this.see([row]);
        this.chosen = this.chosen.includes(row.id) ? this.chosen.filter((other) => other !== row.id) : [...this.chosen, row.id];
    }

    togglePage(rows: Row[]): void {
        this.see(rows);
        const ids = rows.map((row) => row.id);
        const all = rows.length > 0 && ids.every((id) => this.chosen.includes(id));
        this.everything = false;
        this.chosen = all ? this.chosen.filter((id) => !ids.includes(id)) : [...new Set([...this.chosen, ...ids])];
    }

    see(rows: Row[]): void {
        for (const row of rows) this.versions.set(row.id, row.version);
    }

    clear(): void {
        this.chosen = [];
        this.everything = false;
    }
}
