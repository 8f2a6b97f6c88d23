<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import DifferenceLines from '../../parts/DifferenceLines.svelte';
    import { moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';

    let { rule, may, onreload }: { rule: Resources['RuleResource']; may: boolean; onreload: () => void } = $props();
    const pages = createQuery(() => ({
        queryKey: ['pages', rule.id, rule.page],
        queryFn: () => ask(api.GET('/api/rules/{id}/pages', { params: { path: { id: rule.id } } })),
    }));
    let compared = $state.raw<{ page: number; with: string; lines: Resources['DifferenceLine'][] } | null>(null);

    async function compare(from: number, to: number | undefined, against: string) {
        if (compared?.page === from && compared.with === against) return void (compared = null);
        try {
            const lines = await ask(api.GET('/api/rules/{id}/difference', { params: { path: { id: rule.id }, query: { from, to } } }));
            compared = { page: from, with: against, lines };
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function back(number: number) {
        try {
            await ask(
                api.POST('/api/rules/{id}/pages/{number}/back', {
                    params: { path: { id: rule.id, number } },
                    body: { version: rule.draftVersion },
                }),
            );
            toasts.tell(`Page ${number} is the draft now. Publish it to put it in force.`);
            onreload();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

{#each pages.data ?? [] as published, index (published.number)}
    {@const later = pages.data?.[index - 1]?.number}
    <div class="border-b border-ruled px-6 pt-4 pb-3" data-page={published.number}>
        <div class="flex items-baseline gap-2">
            <h2>Page {published.number}</h2>
            <span class="mini">{moment(published.publishedAt)}, {published.publishedBy}</span>
            <a class="link ml-auto text-[12.5px]" href="/api/rules/{rule.id}/file?page={published.number}" download>Export</a>
        </div>
        {#if published.why}<p class="mt-1 text-[13px] text-ink-2 italic">“{published.why}”</p>{/if}
        <p class="mt-1.5 text-[13px] leading-relaxed text-ink-2">{published.reading.aloud}</p>
        <div class="mt-1.5 flex gap-4 text-[12.5px]">
            {#if later}
                <button type="button" class="link" onclick={() => compare(published.number, later, `page ${later}`)}
                    >What page {later} changed</button
                >
            {/if}
            {#if rule.hasDraft && published.number === rule.page}
                <button type="button" class="link" onclick={() => compare(published.number, undefined, 'the draft')}
                    >What the draft changes</button
                >
            {/if}
            {#if may && published.number !== rule.page}
                <button type="button" class="link" onclick={() => back(published.number)}>Bring it back as the draft</button>
            {/if}
        </div>
        {#if compared?.page === published.number}
            <DifferenceLines lines={compared.lines} label="Difference to {compared.with}" />
        {/if}
    </div>
{:else}
    <div class="empty">
        <h2>No page yet.</h2>
        <p>Putting the draft in force makes page 1. A page is never changed; the next one takes its place.</p>
    </div>
{/each}
