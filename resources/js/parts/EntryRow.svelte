<script lang="ts">
    import type { Resources } from '../api/client';
    import { pieces } from '../state/mentions';
    import { moment } from '../state/moments';
    import Answers from './Answers.svelte';
    import VerdictCard from './VerdictCard.svelte';

    let { entry, numbered = false }: { entry: Resources['EntryResource']; numbered?: boolean } = $props();
    let open = $state(false);
    const head = $derived(numbered ? entry.headInLedger : entry.head);
    const why = $derived(entry.why);
    const isSave = $derived(entry.answered);
</script>

<div class="line" data-entry={entry.number} data-kind={entry.kind}>
    <div class="m">
        <a href="/ledger/{entry.number}" class="hover:text-iris" title="Entry {entry.number}">{moment(entry.at)}</a>
    </div>
    <div class="b text-[13.5px]!">
        <span class="font-semibold">{head.strong}</span>
        {head.rest}
        {#if why}
            <button type="button" class="link ml-1 text-[12.5px]" aria-expanded={open} onclick={() => (open = !open)}>Why?</button>
        {:else if isSave}
            <button type="button" class="link ml-1 text-[12.5px]" aria-expanded={open} onclick={() => (open = !open)}>Why not?</button>
        {/if}
        {#if entry.detail}<div class="text-[12.5px] leading-normal whitespace-pre-line text-ink-3">
                {#each pieces(entry.detail) as piece, index (index)}{#if piece.isPerson}<span class="word person">{piece.text}</span
                        >{:else}{piece.text}{/if}{/each}
            </div>{/if}
        {#if open && why}
            <div class="my-1 rounded-md border border-ruled bg-raised px-3 py-2"><VerdictCard verdict={why} /></div>
        {:else if open && isSave}
            <Answers entry={entry.number} />
        {/if}
    </div>
</div>
