<script lang="ts">
    import { Input, Radio } from 'flowbite-svelte';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import { api, ask, said, type Resources } from '../api/client';
    import { fromLocalField, toLocalField } from '../state/moments';
    import { clock } from '../state/session.svelte';
    import { toasts } from '../state/toasts.svelte';
    import Confirm from './Confirm.svelte';
    import DateField from './fields/DateField.svelte';
    import { counted } from '../state/words';

    type Props = {
        /** The entry to reverse; or a rule, of which all in a span are. */
        entry?: number;
        rule?: { id: number; name: string };
        onclose: () => void;
    };
    let { entry, rule, onclose }: Props = $props();
    const queries = useQueryClient();
    let from = $state(toLocalField(new Date(clock.now.getTime() - 7 * 86_400_000).toISOString()));
    // The minute that has begun counts as well.
    let until = $state(toLocalField(new Date(clock.now.getTime() + 60_000).toISOString()));
    let why = $state('');
    let force = $state(false);
    let preview = $state.raw<Resources['ReversalPreview'] | null>(null);
    let done = $state(0);
    let busy = $state(false);
    let stopped = false;

    $effect(() => {
        const body = entry ? { entries: [entry] } : { rule: rule?.id, from: fromLocalField(from), until: fromLocalField(until) };
        let current = true;
        void ask(api.POST('/api/reversals/preview', { body }))
            .then((found) => current && (preview = found))
            .catch((thrown) => untrack(() => toasts.complain(said(thrown))));
        return () => (current = false);
    });

    async function reverse() {
        const entries = preview?.entries ?? [];
        busy = true;
        try {
            // A few at a time, so that it can be watched and stopped; what is done stays done.
            for (let start = 0; start < entries.length && !stopped; start += 20) {
                await ask(api.POST('/api/reversals', { body: { entries: entries.slice(start, start + 20), force, why } }));
                done = Math.min(entries.length, start + 20);
            }
            toasts.tell(counted(done, ['# entry reversed.', '# entries reversed.']));
            await queries.invalidateQueries();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
        onclose();
    }

    function close() {
        stopped = true;
        if (!busy) onclose();
    }

    const nothing = $derived(preview !== null && preview.entries.length === 0);
</script>

<Confirm
    title={entry ? `Reverse entry ${entry}?` : `Reverse what “${rule?.name}” did?`}
    go={preview ? counted(preview.entries.length, ['Reverse # entry', 'Reverse # entries']) : 'Reverse'}
    danger
    onconfirm={reverse}
    onclose={close}
    busy={busy || !preview || nothing}
>
    {#if rule}
        <div class="grid grid-cols-2 gap-3">
            <label class="text-[12.5px] text-ink-2">From<DateField time label="From" bind:value={from} /></label>
            <label class="text-[12.5px] text-ink-2">Until<DateField time label="Until" bind:value={until} /></label>
        </div>
    {/if}
    {#if !preview}
        <p class="mini">Counting…</p>
    {:else if nothing}
        <p>{entry ? 'It has been reversed already, or has nothing to take back.' : 'In this span there is nothing to reverse.'}</p>
    {:else}
        <ul class="list-disc pl-5 text-[13px]" data-reversal>
            <li>
                {counted(preview.fields, ['# field returns to what it was', '# fields return to what they were'])}
            </li>
            {#if preview.tasks}<li>{counted(preview.tasks, ['# open task cancelled', '# open tasks cancelled'])}</li>{/if}
            {#if preview.lines}<li>{counted(preview.lines, ['# pencilled line struck out', '# pencilled lines struck out'])}</li>{/if}
            {#if preview.slips}<li>{counted(preview.slips, ['# reply slip withdrawn', '# reply slips withdrawn'])}</li>{/if}
            {#if preview.signOffs}<li>{counted(preview.signOffs, ['# sign-off withdrawn', '# sign-offs withdrawn'])}</li>{/if}
            {#if preview.sent}<li>{counted(preview.sent, ['# message stays sent', '# messages stay sent'])}</li>{/if}
        </ul>
        {#if preview.conflicts.length}
            <div class="callout warn">
                <p>{counted(preview.conflicts.length, ['# field was changed since:', '# fields were changed since:'])}</p>
                {#each preview.conflicts.slice(0, 5) as conflict (`${conflict.entry} ${conflict.record} ${conflict.label}`)}
                    <p>{conflict.number} {conflict.label}: set to {conflict.set}, now {conflict.is}; was {conflict.was}</p>
                {/each}
                <Radio bind:group={force} value={false}>{counted(preview.conflicts.length, ['leave it as now', 'leave them as now'])}</Radio
                >
                <Radio bind:group={force} value={true}
                    >{counted(preview.conflicts.length, ['return it all the same', 'return them all the same'])}</Radio
                >
            </div>
        {/if}
        <Input aria-label="Why" placeholder="Why? (kept in the ledger)" maxlength={200} bind:value={why} />
        {#if busy}<div class="h-1 overflow-hidden rounded bg-ruled">
                <div class="h-full bg-iris" style="width: {(100 * done) / preview.entries.length}%"></div>
            </div>{/if}
    {/if}
</Confirm>
