import type { Shapes } from '../api/client';
import { at, put, split, type Json, type JsonObject } from './pointer';

type Reading = Shapes['ReadingShape'];

/**
 * A rule file, or a filter, while it is written: every edit is kept at once and can be undone. The server words it, so
 * the screen shows what the rule means and not what the screen thinks it means.
 */
export class Document {
    file = $state.raw<JsonObject>({});
    reading = $state.raw<Reading>({ rows: [], problems: [], aloud: '' });
    undoable = $state(0);
    redoable = $state(0);
    saving = $state(false);
    private past: JsonObject[] = [];
    private future: JsonObject[] = [];
    private waiting = false;

    constructor(
        readonly type: string,
        file: JsonObject,
        reading: Reading,
        private readonly keep: (file: JsonObject) => Promise<Reading>,
        private readonly failed: (thrown: unknown) => void,
    ) {
        this.file = file;
        this.reading = reading;
    }

    at(pointer: string): Json | undefined {
        return at(this.file, pointer);
    }

    edit(change: (file: JsonObject) => void): Promise<void> {
        const next = structuredClone(this.file);
        change(next);
        if (JSON.stringify(next) === JSON.stringify(this.file)) return Promise.resolve();
        this.past.push(this.file);
        this.future = [];
        return this.become(next);
    }

    put(pointer: string, value: Json | undefined): Promise<void> {
        return this.edit((file) => put(file, pointer, value));
    }

    remove(pointer: string): Promise<void> {
        return this.put(pointer, undefined);
    }

    /** Moves an item of a list up or down by one. */
    move(pointer: string, by: -1 | 1): Promise<void> {
        const [list, last] = split(pointer);
        const from = Number(last);
        const items = this.at(list);
        if (!Array.isArray(items) || from + by < 0 || from + by >= items.length) return Promise.resolve();
        return this.edit((file) => {
            const moved = at(file, list) as Json[];
            moved.splice(from + by, 0, ...moved.splice(from, 1));
        });
    }

    append(list: string, item: Json): Promise<void> {
        return this.edit((file) => {
            const items = at(file, list);
            if (Array.isArray(items)) items.push(item);
            else put(file, list, [item]);
        });
    }

    undo(): void {
        const before = this.past.pop();
        if (!before) return;
        this.future.push(this.file);
        void this.become(before);
    }

    redo(): void {
        const after = this.future.pop();
        if (!after) return;
        this.past.push(this.file);
        void this.become(after);
    }

    /** One request at a time; edits made meanwhile are kept together by the next one. */
    private async become(file: JsonObject): Promise<void> {
        this.file = file;
        this.undoable = this.past.length;
        this.redoable = this.future.length;
        if (this.saving) {
            this.waiting = true;
            return;
        }
        this.saving = true;
        try {
            do {
                this.waiting = false;
                this.reading = await this.keep(this.file);
            } while (this.waiting);
        } catch (thrown) {
            this.failed(thrown);
        }
        this.saving = false;
    }
}
