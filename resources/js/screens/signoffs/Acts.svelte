<script lang="ts">
    import type { Resources } from '../../api/client';
    import { session } from '../../state/session.svelte';
    import type { Act } from './acts';

    /* What somebody who is asked can say, or whoever asked can take back: the same wherever a case is shown. */
    type Props = { signOff: Resources['SignOffResource']; onact: (act: Act) => void };
    let { signOff, onact }: Props = $props();
    const mayGive = $derived(!signOff.seats.some((seat) => seat.personId === session.me?.id && seat.asksBack));
</script>

{#if signOff.mine}
    <div class="flex flex-wrap gap-2">
        <button type="button" class="btn go" onclick={() => onact('yes')}>Agree…</button>
        <button type="button" class="btn" onclick={() => onact('no')}>Decline…</button>
        {#if mayGive}
            <button type="button" class="btn quiet" onclick={() => onact('ask')}>Ask first…</button>
            <button type="button" class="btn quiet" onclick={() => onact('hand')}>Hand over…</button>
        {/if}
    </div>
{:else if signOff.mayWithdraw}
    <div><button type="button" class="btn" onclick={() => onact('withdraw')}>Withdraw…</button></div>
{/if}
