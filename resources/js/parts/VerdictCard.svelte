<script lang="ts">
    import type { Resources } from '../api/client';
    import FindingTree from './FindingTree.svelte';

    let { verdict }: { verdict: Resources['VerdictResource'] } = $props();
</script>

<dl class="text-[12.5px]">
    <div class="grid grid-cols-[64px_1fr] gap-x-3 py-1">
        <dt class="mini text-right font-semibold">When</dt>
        <dd>
            <span class="font-semibold {verdict.triggered ? 'text-fern' : 'text-madder'}">{verdict.triggered ? '✓' : '✗'}</span>
            {verdict.trigger}
        </dd>
    </div>
    <div class="grid grid-cols-[64px_1fr] gap-x-3 py-1">
        <dt class="mini text-right font-semibold">Only if</dt>
        <dd><FindingTree finding={verdict.conditions} /></dd>
    </div>
    <div class="grid grid-cols-[64px_1fr] gap-x-3 py-1">
        <dt class="mini text-right font-semibold">Fires</dt>
        <dd>
            <span class="font-semibold {verdict.ready ? 'text-fern' : 'text-madder'}">{verdict.ready ? '✓' : '✗'}</span>
            {verdict.guard}
        </dd>
    </div>
</dl>
