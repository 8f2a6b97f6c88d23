<script lang="ts">
    import { api, ask, said, type Resources } from '../../api/client';
    import { toasts } from '../../state/toasts.svelte';

    /* Work on many records is stopped, gone on with, and taken back. */
    type Props = { job: Resources['BulkResource']; onturned: () => Promise<void> };
    let { job, onturned }: Props = $props();
    let busy = $state(false);

    async function turn(act: 'stop' | 'go-on' | 'undo') {
        busy = true;
        try {
            await ask(api.POST(`/api/bulk/{id}/${act}`, { params: { path: { id: job.id } } }));
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        await onturned();
        busy = false;
    }
</script>

{#if ['waiting', 'running'].includes(job.status)}
    <button type="button" class="btn" disabled={busy} onclick={() => turn('stop')}>Stop</button>
{:else if job.status === 'stopped'}
    <button type="button" class="btn" disabled={busy} onclick={() => turn('go-on')}>Go on</button>
{/if}
{#if ['stopped', 'done'].includes(job.status) && job.saved > 0}
    <button type="button" class="btn danger" disabled={busy} onclick={() => turn('undo')}>Undo</button>
{/if}
