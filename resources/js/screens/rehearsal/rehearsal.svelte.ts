import { api, ask, said, type Resources } from '../../api/client';
import type { Document } from '../../state/document.svelte';

export type Played = Resources['RehearsalResource'];
export type Value = string | number | boolean | null;
export type WhatIf =
    | { kind: 'change'; at: string; set: Record<string, Value> }
    | { kind: 'task_done'; at: string; task: number }
    | { kind: 'slip'; at: string; slip: number; answers: Record<string, Value> }
    | { kind: 'sign_off'; at: string; sign_off: number; answer: 'yes' | 'no'; comment: string }
    | { kind: 'word'; at: string; event: 'reply' | 'comment'; text: string; from?: string }
    | { kind: 'away'; at: string; until: string; person: number }
    | { kind: 'holiday'; day: string };
export type Opening = { kind: string; at: string; was: Record<string, Value>; set: Record<string, Value>; text: string; related: unknown };
type Chosen = { pick?: string; id?: number; values?: Record<string, Value> };

/** What is rehearsed and how it went. Asked again after each edit of the rule; until the answer is there the last one stands. */
export class Rehearsal {
    chosen = $state.raw<Chosen>({});
    /** What happens first, where the person has changed the proposal. */
    opening = $state.raw<Opening | null>(null);
    whatIfs = $state.raw<WhatIf[]>([]);
    others = $state(true);
    played = $state.raw<Played | null>(null);
    trouble = $state('');
    busy = $state(false);
    private asked = 0;

    constructor(
        private readonly page: Document,
        private readonly rule: number,
    ) {}

    /** Everything the answer depends on, for keeping it as a proof. */
    get script() {
        return {
            ...(this.chosen.pick || this.chosen.id || this.chosen.values ? { record: this.chosen } : {}),
            ...(this.opening ? { opening: this.opening } : {}),
            whatIfs: this.whatIfs,
            others: this.others,
        };
    }

    async play() {
        const turn = ++this.asked;
        this.busy = true;
        try {
            const played = await ask(
                api.POST('/api/rehearse', { body: { file: this.page.file, rule: this.rule, ...this.script } as never }),
            );
            if (turn !== this.asked) return;
            this.played = played;
            this.trouble = '';
            // The same record from now on, whatever the rule becomes.
            this.chosen = played.pick === 'made_up' ? { values: played.record.values } : { id: played.record.id };
        } catch (thrown) {
            if (turn === this.asked) this.trouble = said(thrown);
        } finally {
            if (turn === this.asked) this.busy = false;
        }
    }

    choose(chosen: Chosen) {
        this.chosen = chosen;
        this.opening = null;
        void this.play();
    }

    begin(opening: Opening | null) {
        this.opening = opening;
        void this.play();
    }

    suppose(whatIfs: WhatIf[]) {
        this.whatIfs = whatIfs;
        void this.play();
    }

    toggleOthers() {
        this.others = !this.others;
        void this.play();
    }
}
