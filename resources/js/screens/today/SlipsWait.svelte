<script lang="ts">
    import type { Resources } from '../../api/client';
    import { moment } from '../../state/moments';

    /* Slips that somebody has to answer. */
    let { slips }: { slips: Resources['SlipResource'][] } = $props();
</script>

<h2 class="mb-1">Slips to answer</h2>
{#each slips as slip (slip.id)}
    <a
        class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px] hover:text-iris"
        href="/slip/mine/{slip.id}"
        target="_blank"
    >
        <span class="figures mini">{moment(slip.sentAt)}</span>
        <span><b class="font-semibold">{slip.subject}</b> <span class="text-ink-3">{slip.recordTitle}</span></span>
    </a>
{/each}
