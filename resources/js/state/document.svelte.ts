import type { Resources } from '../api/client';
import { at, put, split, type Json, type JsonObject } from './pointer';
import type { RuleDraft } from './written';

type Reading = Resources['ReadingResource'];
type Keeper<File> = {
    keep(file: File): Promise<Reading>;
    failed(thrown: unknown): void;
    /** Whether it may well be taken a little later: without a connection, or while the server is away. */
    mayPass?(thrown: unknown): boolean;
};

/** Milliseconds after which it is tried again, and then twice as many, up to the most. */
const [FIRST, MOST] = [2000, 30_000];

/** Where it does not matter what is written: a rule, or conditions over a list. */
export type AnyDocument = Document<object>;

/**
 * A rule file, or a filter, while it is written: every edit is kept at once and can be undone. The server words it, so
 * the screen shows what the rule means and not what the screen thinks it means.
 */
export class Document<File extends object = RuleDraft> {
    file = $state.raw<File>() as File;
    reading = $state.raw<Reading>({ rows: [], problems: [], aloud: '' });
    /** What proofreading found in it, a moment after the last edit. */
    remarks = $state.raw<Resources['RemarkResource'][]>([]);
    /** Proofs as they come out with it: its own, and those of other rules that it would break. */
    tried = $state.raw<Resources['TriedProof'][]>([]);
    undoable = $state(0);
    redoable = $state(0);
    saving = $state(false);
    /** What stands here is not what the server has. */
    unsaved = $state(false);
    private wait = FIRST;
    private timer: ReturnType<typeof setTimeout> | undefined;
    private past: File[] = [];
    private future: File[] = [];
    private waiting = false;

    constructor(
        readonly type: string,
        file: File,
        reading: Reading,
        private readonly keeper: Keeper<File>,
        /** Conditions over a list: there is no change that they could be about. */
        readonly isFilter = false,
    ) {
        this.file = file;
        this.reading = reading;
    }

    at(pointer: string): Json | undefined {
        return at(this.file, pointer);
    }

    edit(change: (file: File) => void): Promise<void> {
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

    /** Puts something into a list before the item of an index. */
    insert(list: string, index: number, item: Json): Promise<void> {
        return this.edit((file) => {
            const items = at(file, list);
            if (Array.isArray(items)) items.splice(index, 0, item);
        });
    }

    /** Puts a copy of an item of a list behind it. */
    duplicate(pointer: string): Promise<void> {
        const [list, last] = split(pointer);
        return this.edit((file) => {
            const items = at(file, list);
            if (Array.isArray(items)) items.splice(Number(last) + 1, 0, structuredClone(items[Number(last)] ?? null));
        });
    }

    /**
     * Moves a condition one level in: into the group before it, or into a new group of its own.
     *
     * @returns where it stands then
     */
    async indent(pointer: string): Promise<string> {
        const [list, last] = split(pointer);
        const index = Number(last);
        let to = `${pointer}/of/0`;
        await this.edit((file) => {
            const items = at(file, list) as Json[];
            const item = items[index] ?? null;
            const above = index > 0 ? (items[index - 1] as JsonObject) : null;
            if (above && Array.isArray(above.of)) {
                to = `${list}/${index - 1}/of/${above.of.length}`;
                above.of.push(item);
                items.splice(index, 1);
            } else items[index] = { kind: 'any', of: [item] };
        });
        return to;
    }

    /** Moves a condition one level out, behind the group it stood in; a group that is left empty goes. */
    async outdent(pointer: string): Promise<string> {
        const [list, last] = split(pointer);
        const [group] = split(list);
        const [outer, place] = split(group);
        if (!/^\d+$/.test(place)) return pointer;
        let to = pointer;
        await this.edit((file) => {
            const items = at(file, list) as Json[];
            const around = at(file, outer) as Json[];
            const [item] = items.splice(Number(last), 1);
            const left = items.length > 0;
            around.splice(Number(place) + (left ? 1 : 0), left ? 0 : 1, item ?? null);
            to = `${outer}/${Number(place) + (left ? 1 : 0)}`;
        });
        return to;
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

    /** Done once the server has worded everything written so far. */
    settled: Promise<void> = Promise.resolve();

    /** Another file in its place, as an edit that can be undone. */
    replace(file: File): Promise<void> {
        this.past.push(this.file);
        this.future = [];
        return this.become(file);
    }

    /** Tries once more to have it kept. */
    again(): Promise<void> {
        clearTimeout(this.timer);
        if (this.unsaved && !this.saving) this.settled = this.read();
        return this.settled;
    }

    /** Nothing is tried any more: whoever wrote it has gone elsewhere. */
    end(): void {
        clearTimeout(this.timer);
    }

    /** One request at a time; edits made meanwhile are kept together by the next one. */
    private become(file: File): Promise<void> {
        this.file = file;
        this.undoable = this.past.length;
        this.redoable = this.future.length;
        if (this.saving) this.waiting = true;
        else this.settled = this.read();
        return this.settled;
    }

    private async read(): Promise<void> {
        clearTimeout(this.timer);
        this.saving = true;
        try {
            do {
                this.waiting = false;
                this.reading = await this.keeper.keep(this.file);
            } while (this.waiting);
            this.unsaved = false;
            this.wait = FIRST;
        } catch (thrown) {
            this.unsaved = true;
            this.keeper.failed(thrown);
            if (this.keeper.mayPass?.(thrown)) {
                this.timer = setTimeout(() => void this.again(), this.wait);
                this.wait = Math.min(MOST, 2 * this.wait);
            }
        }
        this.saving = false;
    }
}
