<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Stamp from '../../parts/Stamp.svelte';
    import { moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import { counted, say } from '../../state/words';

    /* What went to an endpoint and what came back; what was given up is mended and sent again here. */
    let { endpoint }: { endpoint: string } = $props();
    const client = useQueryClient();
    const calls = createQuery(() => ({
        queryKey: ['calls', endpoint],
        queryFn: () => ask(api.GET('/api/calls', { params: { query: { endpoint, limit: 50 } } })),
        refetchInterval: 10_000,
    }));
    const failed = $derived((calls.data?.calls ?? []).filter((call) => call.status === 'failed').length);
    /** What waits for somebody comes first. */
    const inOrder = $derived((calls.data?.calls ?? []).toSorted((a, b) => Number(b.status === 'failed') - Number(a.status === 'failed')));
    const SAID = { waiting: say('waiting'), succeeded: say('succeeded'), failed: 'given up' };
    const TONES = { waiting: 'marigold', succeeded: 'fern', failed: 'madder' } as const;
    let opened = $state(0);
    let payload = $state('');

    const heard = (call: Resources['CallResource']) =>
        call.trouble || (call.answerStatus ? `answered ${call.answerStatus}` : 'not sent yet');

    function open(call: Resources['CallResource']) {
        opened = opened === call.id ? 0 : call.id;
        payload = call.payload;
    }

    async function again(call: Resources['CallResource']) {
        try {
            const body = payload === call.payload ? {} : { payload };
            await ask(api.POST('/api/calls/{id}/again', { params: { path: { id: call.id } }, body }));
            toasts.tell('It is on its way again.');
            opened = 0;
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        refresh();
    }

    async function all() {
        try {
            await ask(api.POST('/api/calls/again', { body: { endpoint } }));
            toasts.tell('They are on their way again.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        refresh();
    }

    function refresh() {
        for (const key of ['calls', 'endpoints']) void client.invalidateQueries({ queryKey: [key] });
    }
</script>

<div class="mt-7 flex items-center gap-3">
    <h2 class="text-[16px]">Calls</h2>
    <span class="mini">{calls.data ? `${calls.data.count} in all` : ''}</span>
    {#if failed > 1}<button type="button" class="btn ml-auto" onclick={() => void all()}>Send all given up again</button>{/if}
</div>
{#each inOrder as call (call.id)}
    <div class="border-b border-ruled py-1.5">
        <button type="button" class="grid w-full grid-cols-[96px_1fr_auto] gap-3 text-left" onclick={() => open(call)}>
            <span class="figures mini">{moment(call.endedAt ?? call.madeAt)}</span>
            <span class="min-w-0 truncate"
                ><b class="font-medium">{call.recordTitle || call.recordNumber}</b>
                <span class="text-ink-3">{heard(call)}</span></span
            >
            <Stamp tone={TONES[call.status]}>{SAID[call.status]}</Stamp>
        </button>
        {#if opened === call.id}
            <div class="mt-2 grid gap-2 rounded-md bg-lit p-3">
                <p class="mini">
                    By “{call.rule}”, for
                    <a class="link" href="/records/{call.recordType}/{call.recordId}">{call.recordNumber}</a>, {counted(call.tries, [
                        'tried # time',
                        'tried # times',
                    ])}{call.unsure
                        ? counted(call.unsure, [
                              '; once it may have been taken without an answer',
                              '; # times it may have been taken without an answer',
                          ])
                        : ''}
                </p>
                <label class="mini" for="payload-{call.id}">{call.status === 'failed' ? 'What is to be sent' : 'What was sent'}</label>
                <Area id="payload-{call.id}" class="figures h-32 text-[12px]" readonly={call.status !== 'failed'} bind:value={payload} />
                {#if call.answer}<span class="mini">What came back</span>
                    <pre class="figures max-h-40 overflow-auto text-[12px] whitespace-pre-wrap">{call.answer}</pre>{/if}
                {#if call.status === 'failed'}<button type="button" class="btn go justify-self-start" onclick={() => void again(call)}
                        >{payload === call.payload ? 'Send it again' : 'Send the corrected one'}</button
                    >{/if}
            </div>
        {/if}
    </div>
{:else}
    {#if calls.data}<p class="mt-1 text-ink-2">Nothing has gone there yet.</p>{/if}
{/each}
