<script lang="ts">
    import type { Resources } from '../../api/client';
    import type { Document } from '../../state/document.svelte';
    import { split, type Json } from '../../state/pointer';

    let { page, may }: { page: Document; may: boolean } = $props();
    const problems = $derived(page.reading.problems);
    const remarks = $derived(page.remarks);
    const LEVELS: Record<string, { label: string; tone: string }> = {
        blocks: { label: 'Mend first', tone: 'text-madder' },
        look: { label: 'Look at it', tone: 'text-marigold' },
        note: { label: 'Note', tone: 'text-harbor' },
    };

    /** Takes the eye to the word a remark is about. */
    function find(at: string) {
        const words = [...document.querySelectorAll<HTMLElement>('[data-word]')];
        const word =
            words.find((candidate) => candidate.dataset.word?.startsWith(`${at}|`)) ??
            words.find((candidate) => candidate.dataset.word?.startsWith(at));
        if (at === '/name') document.querySelector<HTMLElement>('[aria-label="Name of the rule"]')?.focus();
        else word?.focus();
    }

    function follow(fix: Resources['FixResource']) {
        if (fix.put) return void page.put(fix.at, fix.put.value as Json);
        const [list, last] = split(fix.at);
        const items = page.at(list);
        if (!Array.isArray(items)) return void page.remove(fix.at);
        void page.put(
            list,
            items.filter((_, index) => index !== Number(last)),
        );
    }
</script>

<div class="p-6" data-remarks>
    {#each problems as problem (problem.at + problem.code)}
        <button
            type="button"
            class="grid w-full grid-cols-[84px_1fr] border-b border-ruled py-2.5 text-left hover:bg-lit"
            onclick={() => find(problem.at)}
        >
            <span class="pt-0.5 text-[11.5px] font-semibold text-madder">Mend first</span>
            <span class="text-[13.5px]">{problem.message}</span>
        </button>
    {/each}
    {#if !problems.length}
        {#each remarks as remark (remark.at + remark.code)}
            <div class="grid grid-cols-[84px_1fr] border-b border-ruled py-2.5" data-remark={remark.code}>
                <span class="pt-0.5 text-[11.5px] font-semibold {LEVELS[remark.level]?.tone}">{LEVELS[remark.level]?.label}</span>
                <div>
                    <button
                        type="button"
                        class="text-left text-[13.5px] hover:text-iris"
                        title="Show the words"
                        onclick={() => find(remark.at)}>{remark.message}</button
                    >
                    <p class="text-[12.5px] text-ink-2">
                        {remark.advice}
                        {#if remark.fix && may}
                            {@const fix = remark.fix}
                            <button type="button" class="link ml-1" onclick={() => follow(fix)}>{fix.label}</button>
                        {/if}
                    </p>
                </div>
            </div>
        {:else}
            <p class="text-[13.5px]"><span class="font-semibold text-fern">✓</span> The rule is complete, and nothing in it looks amiss.</p>
        {/each}
        {#if page.reading.aloud}
            <div class="callout mt-5"><b>Reads aloud:</b> {page.reading.aloud}</div>
        {/if}
    {/if}
</div>
