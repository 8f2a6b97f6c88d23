<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import type { Resources } from '../../api/client';
    import ActDialog from './ActDialog.svelte';
    import Acts from './Acts.svelte';
    import type { Act } from './acts';
    import { caseQuery } from './case';
    import StandsLeaf from './StandsLeaf.svelte';

    /* Where a sign-off of the record stands, above what is pencilled in. */
    let { signOff }: { signOff: Resources['SignOffResource'] } = $props();
    let asking = $state.raw<{ act: Act; place?: number } | null>(null);
    // Only for those who have a part in it: others see who was asked, and not whom it would go to.
    const file = createQuery(() => ({ ...caseQuery(signOff), retry: false }));
</script>

<div class="border-b border-ruled pb-2" data-sign-off={signOff.id}>
    <p class="px-7 pt-3 pb-1 text-[13px]">
        <b class="font-semibold">A sign-off waits.</b>
        <span class="text-ink-2">{signOff.why || signOff.ruleName}</span>
    </p>
    <StandsLeaf {signOff} coming={file.data?.ahead ?? []} onanswer={(place) => (asking = { act: 'answer', place })} />
    {#if !signOff.mine && signOff.mayWithdraw}
        <div class="px-7 pt-1 pb-2"><Acts {signOff} onact={(act) => (asking = { act })} /></div>
    {/if}
</div>
{#if asking}
    <ActDialog act={asking.act} place={asking.place} cases={[signOff]} onclose={() => (asking = null)} ondone={() => (asking = null)} />
{/if}
