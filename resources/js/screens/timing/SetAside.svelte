<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';

    /* Lines that could not be done, even alone: why, and a way to try them again or strike them out. */
    const client = useQueryClient();
    const lines = createQuery(() => ({
        queryKey: ['lines', 'set-aside'],
        queryFn: () => ask(api.GET('/api/lines/set-aside')),
        refetchInterval: 10_000,
    }));

    async function act(id: number, how: 'again' | 'strike') {
        try {
            const params = { path: { id } };
            if (how === 'again') await ask(api.POST('/api/lines/{id}/again', { params }));
            else await ask(api.POST('/api/lines/{id}/strike', { params, body: { why: 'It could not be done.' } }));
            toasts.tell(how === 'again' ? 'It is tried again.' : 'Struck out.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        void client.invalidateQueries({ queryKey: ['lines'] });
    }
</script>

{#if lines.data?.length}
    <h2 class="mt-7">Set aside</h2>
    <p class="mt-1 mb-2 text-[13px] text-ink-2">
        These lines could not be done and kept no other waiting. Mend what the matter was, then try them again.
    </p>
    {#each lines.data as line (line.id)}
        <div class="border-b border-ruled py-2 text-[13px]">
            <div class="flex items-baseline gap-3">
                <a class="link" href="/records/{line.recordType}/{line.recordId}">{line.recordNumber}</a>
                <span class="min-w-0 flex-1 truncate"><b class="font-semibold">{line.ruleName ?? ''}</b> {line.title}</span>
                <span class="figures mini">{line.due ? moment(line.due) : ''}</span>
            </div>
            <p class="mt-0.5 text-madder">{line.note}</p>
            {#if session.me?.mayEditRecords}
                <div class="mt-1.5 flex gap-2">
                    <button type="button" class="btn" onclick={() => act(line.id, 'again')}>Try again</button>
                    <button type="button" class="btn quiet" onclick={() => act(line.id, 'strike')}>Strike out</button>
                </div>
            {/if}
        </div>
    {/each}
{/if}
