<script lang="ts">
    import type { Resources } from '../../api/client';
    import { ahead } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import ActDialog from './ActDialog.svelte';
    import Acts from './Acts.svelte';
    import type { Act } from './acts';

    /* A sign-off of the record that waits for whoever looks at it: decided here, where the case is. */
    let { signOff }: { signOff: Resources['SignOffResource'] } = $props();
    let act = $state<Act | null>(null);
    const due = $derived(signOff.seats.find((seat) => seat.state === 'waiting' && seat.personId === session.me?.id)?.dueAt);
</script>

<section class="callout mx-7 my-3 text-[13px]" aria-label="A sign-off waits for you" data-waits={signOff.id}>
    <p>
        <b>A sign-off waits for you.</b>
        {signOff.why || signOff.ruleName}
        {#if signOff.asker || due}
            <span class="block text-ink-3">
                {#if signOff.asker}Asked by {signOff.asker}.{/if}
                {#if due}Due {ahead(due)}.{/if}
            </span>
        {/if}
    </p>
    <div class="mt-2"><Acts {signOff} onact={(chosen) => (act = chosen)} /></div>
</section>
{#if act}
    <ActDialog {act} cases={[signOff]} onclose={() => (act = null)} ondone={() => (act = null)} />
{/if}
