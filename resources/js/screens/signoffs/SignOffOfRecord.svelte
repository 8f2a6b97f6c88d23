<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import type { Resources } from '../../api/client';
    import { caseQuery } from './case';
    import StandsLeaf from './StandsLeaf.svelte';

    /* Where a sign-off of the record stands, above what is pencilled in. */
    let { signOff }: { signOff: Resources['SignOffResource'] } = $props();
    // Only for those who have a part in it: others see who was asked, and not whom it would go to.
    const file = createQuery(() => ({ ...caseQuery(signOff), retry: false }));
</script>

<div class="border-b border-ruled pb-2" data-sign-off={signOff.id}>
    <p class="px-7 pt-3 pb-1 text-[13px]">
        <b class="font-semibold">A sign-off waits.</b>
        <span class="text-ink-2">{signOff.why || signOff.ruleName}</span>
    </p>
    <StandsLeaf {signOff} coming={file.data?.ahead ?? []} />
</div>
