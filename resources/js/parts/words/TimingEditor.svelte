<script lang="ts">
    import type { Document } from '../../state/document.svelte';
    import { put, split, type JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';
    import { MOMENTS, ownFields } from '../offers';
    import DueFields from './DueFields.svelte';

    /* When a line is done: at once, or later in one of the ways that there are. */
    type Props = { document: Document; at: string; onclose: () => void };
    let { document: page, at, onclose }: Props = $props();
    // svelte-ignore state_referenced_locally
    const given = (page.at(at) ?? {}) as JsonObject;
    // svelte-ignore state_referenced_locally
    const place = Number(at.split('/')[2]);
    // svelte-ignore state_referenced_locally
    const lines = ((page.at('/lines') ?? []) as JsonObject[]).slice(0, place);
    const givers = lines
        .map((line, index) => ({ line, index }))
        .filter(({ line }) => ['give_task', 'give_tasks'].includes(String(line.kind)));
    // svelte-ignore state_referenced_locally
    const dates = ownFields(page.type, (field) => MOMENTS.includes(field.type));
    const offers = [
        { kind: '', label: 'at once' },
        ...(session.schema?.timings ?? []).filter((offer) => givers.length > 0 || !['done', 'late'].includes(offer.kind)),
    ];
    let kind = $state(String(given.kind ?? ''));
    let due = $state<JsonObject>({
        amount: Number(given.amount ?? 3),
        unit: String(given.unit ?? 'day'),
        ...(given.roll ? { roll: given.roll } : {}),
        ...(given.time ? { time: given.time } : {}),
        ...(given.clock ? { clock: given.clock } : {}),
    });
    let field = $state(String(given.field ?? dates[0]?.key ?? ''));
    let giver = $state(
        Math.max(
            0,
            givers.findIndex(({ line }) => line.key !== undefined && line.key === given.line),
        ),
    );
    let times = $state(Number(given.times ?? 5));
    const timeOut = (given.timeOut ?? null) as JsonObject | null;
    let out = $state(timeOut !== null);
    let outDue = $state<JsonObject>(timeOut ?? { amount: 7, unit: 'day' });
    let then = $state(String(given.then ?? 'leave_out'));
    const sides = $derived<[string, string] | null>(kind === 'date' || kind === 'late' ? ['after', 'before'] : null);

    /** What the form says; where that is what it said when it was opened, nothing is written. */
    const said = () => JSON.stringify([kind, due, field, giver, times, out, outDue, then]);
    const before = said();

    function done(event: SubmitEvent) {
        event.preventDefault();
        if (said() === before) return onclose();
        void page.edit((file) => {
            if (kind === '') {
                put(file, at, undefined);
                put(file, `${split(at)[0]}/tooLate`, undefined);
                return;
            }
            const next: JsonObject = { kind, ...due };
            if (kind !== 'date' && kind !== 'late') next.amount = Math.abs(Number(due.amount));
            if (kind === 'date') next.field = field;
            if (kind === 'every') next.times = times;
            if (kind === 'done' || kind === 'late') next.line = keyOf(file, givers[giver]?.index ?? 0);
            if (kind === 'done' && out) Object.assign(next, { timeOut: { amount: outDue.amount ?? 7, unit: outDue.unit ?? 'day' }, then });
            put(file, at, next);
        });
        onclose();
    }

    /** The name by which a line waits for another; it gets one when it is first waited for. */
    function keyOf(file: JsonObject, index: number): string {
        const all = (file.lines ?? []) as JsonObject[];
        const known = all[index]?.key;
        if (typeof known === 'string') return known;
        const taken = all.map((line) => line.key);
        let number = index + 1;
        while (taken.includes(`line_${number}`)) number++;
        put(file, `/lines/${index}/key`, `line_${number}`);
        return `line_${number}`;
    }
</script>

<form class="w-[400px]" onsubmit={done}>
    <div class="space-y-2 px-4 py-3">
        <select class="input" aria-label="When" bind:value={kind}>
            {#each offers as offer (offer.kind)}<option value={offer.kind}>{offer.label}</option>{/each}
        </select>
        {#if kind === 'done' || kind === 'late'}
            <select class="input" aria-label="Of which line" bind:value={giver}>
                {#each givers as { line, index }, number (index)}<option value={number}
                        >line {index + 1}: {String(line.title ?? 'several tasks')}</option
                    >{/each}
            </select>
        {/if}
        {#if kind !== ''}
            <DueFields bind:due {sides} least={kind === 'every' || kind === 'after' ? 1 : 0} clocks />
        {/if}
        {#if kind === 'date'}
            <label class="flex items-center gap-2 text-[12.5px] text-ink-2"
                >counted from <select class="input" aria-label="Date" bind:value={field}>
                    {#each dates as option (option.key)}<option value={option.key}>{option.label}</option>{/each}
                </select></label
            >
        {:else if kind === 'every'}
            <label class="flex items-center gap-2 text-[12.5px] text-ink-2"
                >at most <input class="input w-20!" type="number" min="1" max="100" aria-label="Times" bind:value={times} /> times</label
            >
        {:else if kind === 'done'}
            <label class="flex items-center gap-2 text-[12.5px] text-ink-2"
                ><input type="checkbox" class="accent-(--iris)" bind:checked={out} />wait no longer than</label
            >
            {#if out}
                <DueFields bind:due={outDue} least={1} rolls={false} />
                <select class="input" aria-label="And then" bind:value={then}>
                    <option value="leave_out">then leave the line out</option>
                    <option value="anyway">then do it anyway</option>
                </select>
            {/if}
        {/if}
    </div>
    <div class="keys"><span><kbd>Enter</kbd>done</span><span><kbd>Esc</kbd>close</span><button class="link ml-auto">Done</button></div>
</form>
