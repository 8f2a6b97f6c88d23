<script lang="ts">
    import type { Resources } from '../../api/client';
    import SlipTurns from './SlipTurns.svelte';

    /* Where a slip about the record stands, above what is pencilled in. */
    let { slip }: { slip: Resources['SlipResource'] } = $props();
</script>

<div class="border-b border-ruled pb-2" data-slip={slip.id}>
    <p class="px-7 pt-3 pb-1 text-[13px]">
        <b class="font-semibold">A reply slip is out.</b>
        <span class="text-ink-2">{slip.subject}</span>
    </p>
    <SlipTurns {slip} />
</div>
