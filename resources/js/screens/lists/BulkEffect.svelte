<script lang="ts">
    import type { Resources } from '../../api/client';
    import { inFigures } from '../../state/numbers';
    import { counted, countedOf } from '../../state/words';

    /* Which rules many changes would start, and what would be refused: tried on paper. */
    type Props = { preview: Resources['BulkPreviewResource']; type: Resources['TypeResource'] };
    let { preview, type }: Props = $props();
    const isSample = $derived(preview.tried < preview.total);
    const about = (count: number) =>
        isSample ? `about ${inFigures(Math.round((count * preview.total) / Math.max(1, preview.tried)))}` : String(count);
</script>

<p>
    {#if isSample}Tried on paper on the first {countedOf(preview.tried, type)} of {inFigures(preview.total)}; the rest is guessed from
        these.
    {:else}Tried on paper on {countedOf(preview.total, type)}.{/if}
    {#if preview.same}So already: {countedOf(preview.same, type)}.{/if}
</p>
<div class="max-h-56 overflow-auto" data-effect>
    {#each preview.rules as rule (rule.id)}
        <div class="flex items-baseline gap-3 border-b border-ruled py-1">
            <a class="min-w-0 flex-1 truncate font-medium text-ink hover:text-iris" href="/rules/{rule.id}" target="_blank">{rule.name}</a>
            <span class="figures mini">fires {about(rule.count)} ×</span>
        </div>
    {:else}<p>No rule would fire.</p>{/each}
    {#each preview.refused as reason (reason.said)}
        <div class="flex items-baseline gap-3 border-b border-ruled py-1 text-madder">
            <span class="min-w-0 flex-1">{reason.said}</span><span class="figures mini">{counted(reason.count, ['# time', '# times'])}</span
            >
        </div>
    {/each}
</div>
