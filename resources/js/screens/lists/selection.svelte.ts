import type { Resources } from '../../api/client';

type Row = Pick<Resources['RecordResource'], 'id'>;

/** The records of a list that are chosen, also those on other pages; or all that fit, however many that is. */
export class Selection {
    private chosen = $state<number[]>([]);
    /** Whether all that fit are meant, not only those that were ticked. */
    everything = $state(false);

    get ids(): number[] {
        return this.chosen;
    }

    has(id: number): boolean {
        return this.everything || this.chosen.includes(id);
    }

    toggle(row: Row): void {
        this.everything = false;
        this.chosen = this.chosen.includes(row.id) ? this.chosen.filter((other) => other !== row.id) : [...this.chosen, row.id];
    }

    togglePage(rows: Row[]): void {
        const ids = rows.map((row) => row.id);
        const all = rows.length > 0 && ids.every((id) => this.chosen.includes(id));
        this.everything = false;
        this.chosen = all ? this.chosen.filter((id) => !ids.includes(id)) : [...new Set([...this.chosen, ...ids])];
    }

    clear(): void {
        this.chosen = [];
        this.everything = false;
    }
}
