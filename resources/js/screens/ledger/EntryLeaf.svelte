<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Answers from '../../parts/Answers.svelte';
    import Reverse from '../../parts/Reverse.svelte';
    import { session } from '../../state/session.svelte';
    import VerdictCard from '../../parts/VerdictCard.svelte';
    import { longMoment, moment } from '../../state/moments';
    import { say } from '../../state/words';

    /* One entry: what it says, why, what led to it and what followed. */
    let { number }: { number: number } = $props();
    const detail = createQuery(() => ({
        queryKey: ['entry', number],
        queryFn: () => ask(api.GET('/api/ledger/{number}', { params: { path: { number } } })),
    }));
    const entry = $derived(detail.data?.entry);
    let reversing = $state(false);
    const why = $derived(entry?.why);

    /** What rules did, an administrator takes back; an edit, whoever made it too. */
    function mayReverse(entry: Resources['EntryResource']): boolean {
        const isEdit = entry.kind === 'changed' && ['person', 'api'].includes(entry.via);
        if (session.me?.mayEditRules) return isEdit || ['fired', 'line'].includes(entry.kind);
        return isEdit && entry.whoId === session.me?.id && (session.me?.mayEditRecords ?? false);
    }
</script>

<div class="scroll p-6">
    {#if detail.isError}
        <div class="empty">
            <h2>No such entry.</h2>
            <p>{said(detail.error)}</p>
        </div>
    {:else if entry && detail.data}
        {@const head = entry.headInLedger}
        <p class="figures mini">No. {entry.number} · {longMoment(entry.at)}</p>
        <h2 class="mt-1 text-[18px]!">{head.strong} {head.rest}</h2>
        <p class="sub flex flex-wrap gap-x-2">
            {#if entry.recordType && entry.recordId}
                <a class="link" href="/records/{entry.recordType}/{entry.recordId}"
                    ><span class="figures">{entry.recordNumber}</span> {entry.recordTitle}</a
                >
            {/if}
            {#if entry.rule}<a class="link" href="/rules/{entry.rule}">{entry.ruleName}{entry.page ? `, page ${entry.page}` : ''}</a>{/if}
        </p>
        {#if entry.detail && entry.kind !== 'stopped' && !entry.outcomes.length && !entry.changes.length}
            <p class="callout mt-4 whitespace-pre-line">{entry.detail}</p>
        {/if}
        {#if why && entry.kind === 'refused'}
            <h2 class="mt-6 mb-1">Why it refused</h2>
            <VerdictCard verdict={why} />
        {:else if why}
            <h2 class="mt-6 mb-1">Why it fired</h2>
            <VerdictCard verdict={why} />
            <h2 class="mt-5 mb-1">What it did</h2>
            {#each entry.outcomes as outcome, index (index)}
                <div class="border-b border-ruled py-1.5 text-[13px]">
                    {#if outcome.kind === 'set'}
                        Set <b class="font-semibold">{outcome.label}</b> from {outcome.before} to
                        <b class="font-semibold text-iris">{outcome.after}</b>
                        {#if !outcome.changed}<span class="mini">as it was</span>{/if}
                    {:else if outcome.kind === 'task'}
                        Gave <b class="font-semibold text-fern">{outcome.person ?? say('nobody')}</b> the task “{outcome.title}”{outcome.due
                            ? `, due ${outcome.due}`
                            : ''}
                        <div class="mini">found by: {outcome.path}</div>
                    {:else if outcome.kind === 'failed' || outcome.kind === 'skipped'}
                        <span class={outcome.kind === 'failed' ? 'text-madder' : 'text-ink-3'}>{outcome.said}</span>
                    {:else}
                        {outcome.said}
                    {/if}
                </div>
            {/each}
        {:else if entry.changes.length}
            <h2 class="mt-6 mb-1">What changed</h2>
            {#each entry.changes as change (change.field)}
                <div class="grid grid-cols-[120px_1fr] gap-2 border-b border-ruled py-1.5 text-[13px]">
                    <span class="text-ink-2">{change.label}</span><span>{change.before} → <b class="font-semibold">{change.after}</b></span>
                </div>
            {/each}
        {:else if entry.kind === 'stopped'}
            <p class="callout mt-5">{entry.detail} The save itself is whole.</p>
        {/if}
        {#if entry.answered}
            <h2 class="mt-6 mb-1">What the rules made of it</h2>
            {#key entry.number}<Answers entry={entry.number} />{/key}
        {/if}
        {#if mayReverse(entry)}
            <button type="button" class="btn mt-5" onclick={() => (reversing = true)}>Reverse…</button>
        {/if}
        {#if entry.request}<p class="mini mt-5">Request <span class="figures">{entry.request}</span></p>{/if}
        {#if detail.data.causes.length || detail.data.followed.length}
            <h2 class="mt-6 mb-1">The thread</h2>
            {#each [...detail.data.causes].reverse() as cause (cause.number)}
                {@const said = cause.headInLedger}
                <a
                    class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px] hover:text-iris"
                    href="/ledger/{cause.number}"
                    ><span class="figures mini">{moment(cause.at)}</span><span>{said.strong} {said.rest}</span></a
                >
            {/each}
            <div class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled bg-iris-wash py-1.5 text-[12.5px] font-semibold">
                <span class="figures mini">{moment(entry.at)}</span><span>this entry</span>
            </div>
            {#each detail.data.followed as next (next.number)}
                {@const said = next.headInLedger}
                <a
                    class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px] hover:text-iris"
                    href="/ledger/{next.number}"
                    ><span class="figures mini">{moment(next.at)}</span><span>{said.strong} {said.rest}</span></a
                >
            {/each}
        {/if}
    {/if}
</div>

{#if reversing && entry}<Reverse entry={entry.number} onclose={() => (reversing = false)} />{/if}
