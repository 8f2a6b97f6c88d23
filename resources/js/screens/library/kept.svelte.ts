import { untrack } from 'svelte';
import type { QueryClient } from '@tanstack/svelte-query';
import { Refusal, said } from '../../api/client';
import { toasts } from '../../state/toasts.svelte';

/** One thing that is kept in Setup, as somebody edits it; without an id while it is new. */
export type Draft = { id: number | null; version: number; name: string };

/** What the screens of Setup have in common: one thing of a list is opened, changed, kept or deleted. */
export class Kept<T extends Draft> {
    editing = $state<T | null>(null);
    refusal = $state.raw<Refusal | null>(null);
    deleting = $state(false);
    private begun = false;

    constructor(
        private readonly client: QueryClient,
        /** Under which its list is remembered. */
        private readonly key: string,
    ) {}

    open(draft: T | null): void {
        this.refusal = null;
        this.editing = draft;
    }

    /**
     * The first of the list lies open as soon as the list is there, unless somebody was quicker and has begun something.
     *
     * @param  show  what opens it, or begins a new one where there is none
     */
    openFirst<K>(list: K[] | undefined, show: (first: K | undefined) => void): void {
        if (this.begun || !list) return;
        this.begun = true;
        untrack(() => {
            if (!this.editing) show(list[0]);
        });
    }

    /** What was said of one place of what is kept, or of all of it. */
    problem(at: string): string | undefined {
        return this.refusal?.at(at);
    }

    /**
     * Keeps what is edited. Where it is refused, it stays as it was written, with what is wrong.
     *
     * @returns what was kept; null when it was not
     */
    async keep<K>(write: (draft: T) => Promise<K>, told: (draft: T, kept: K) => string): Promise<K | null> {
        if (!this.editing) return null;
        this.refusal = null;
        const draft = $state.snapshot(this.editing) as T;
        try {
            const kept = await write(draft);
            await this.client.invalidateQueries({ queryKey: [this.key] });
            toasts.tell(told(draft, kept));
            this.editing = null;
            return kept;
        } catch (thrown) {
            if (thrown instanceof Refusal) this.refusal = thrown;
            else toasts.complain(said(thrown));
            return null;
        }
    }

    async delete(remove: (id: number) => Promise<unknown>): Promise<void> {
        const id = this.editing?.id;
        this.deleting = false;
        if (id === null || id === undefined) return;
        try {
            await remove(id);
            this.editing = null;
            await this.client.invalidateQueries({ queryKey: [this.key] });
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
}
