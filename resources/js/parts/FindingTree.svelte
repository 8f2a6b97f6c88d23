<script lang="ts">
    import type { Resources } from '../api/client';
    import FindingTree from './FindingTree.svelte';
    import { say } from '../state/words';

    let { finding, depth = 0 }: { finding: Resources['FindingResource']; depth?: number } = $props();
</script>

{#if finding.parts.length === 0 && finding.seen === null}
    <p class="text-ink-2">There are no conditions.</p>
{:else}
    <div style:padding-left="{depth * 16}px" class="flex items-baseline gap-2 py-0.5">
        <span
            class="w-4 shrink-0 text-center font-semibold {finding.held ? 'text-fern' : 'text-madder'}"
            aria-label={finding.held ? say('held') : 'did not hold'}
        >
            {finding.held ? '✓' : '✗'}
        </span>
        <span class={finding.seen === null ? 'text-ink-2' : 'font-medium'}>{finding.text}</span>
        {#if finding.seen !== null}<span class="mini figures">saw {finding.seen}</span>{/if}
    </div>
    {#each finding.parts as part, index (index)}<FindingTree finding={part} depth={depth + 1} />{/each}
{/if}
