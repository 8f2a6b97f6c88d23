<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask } from '../../api/client';
    import Broken from '../../parts/Broken.svelte';
    import PencilledLine from '../../parts/PencilledLine.svelte';
    import { dayName } from '../../state/moments';

    /* What is pencilled in for one day: somebody's own, or all that they may see. */
    let { date, whose, onback }: { date: string; whose: 'mine' | 'all'; onback: () => void } = $props();
    const lines = createQuery(() => ({
        queryKey: ['lines', date, whose],
        queryFn: () => ask(api.GET('/api/lines', { params: { query: { date, whose } } })),
    }));
</script>

<div class="margined">
    <div class="line min-h-0! bg-lit">
        <div class="m h"></div>
        <div class="b flex py-1.5! text-[12px]! font-semibold">
            Pencilled in for {dayName(date)} <span class="figures ml-1 text-ink-3">{lines.data?.length ?? ''}</span>
            <button type="button" class="link ml-auto" onclick={onback}>Back to today</button>
        </div>
    </div>
    {#each lines.data ?? [] as line (line.id)}
        <svelte:boundary>
            <PencilledLine {line} withRecord />
            {#snippet failed()}<Broken what="line" />{/snippet}
        </svelte:boundary>
    {:else}{#if lines.data}<div class="empty"><h2>Nothing is pencilled in.</h2></div>{/if}
    {/each}
</div>
