<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../api/client';
    import { moment } from '../state/moments';
    import { session } from '../state/session.svelte';
    import { toasts } from '../state/toasts.svelte';
    import Stamp from './Stamp.svelte';
    import { counted, say } from '../state/words';

    let { message, elsewhere = false }: { message: Resources['MessageResource']; elsewhere?: boolean } = $props();
    const client = useQueryClient();
    let open = $state(false);
    const what: Record<string, string> = { email: 'E-mail', sms: 'Text message', app: 'Note' };
    const states: Record<string, { tone: string; label: string }> = {
        waiting: { tone: 'marigold', label: 'in the outbox' },
        delivered: { tone: 'fern', label: say('delivered') },
        failed: { tone: 'madder', label: say('failed') },
    };

    async function again() {
        try {
            await ask(api.POST('/api/messages/{id}/again', { params: { path: { id: message.id } } }));
            void client.invalidateQueries();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<div class="line" data-message={message.id}>
    <div class="m">{moment(message.createdAt)}</div>
    <div class="b text-[13.5px]!">
        <button type="button" class="text-left font-semibold hover:text-iris" aria-expanded={open} onclick={() => (open = !open)}
            >{message.subject || message.text.slice(0, 80)}</button
        >
        <Stamp tone={states[message.status]?.tone ?? 'harbor'}>{states[message.status]?.label}</Stamp>
        <div class="text-[12.5px] text-ink-3">
            {what[message.channel]} to {message.to.join(', ')}{message.cc.length ? `, copy to ${message.cc.join(', ')}` : ''}
            {#if message.ruleName}· sent by <a class="hover:text-iris" href="/ledger/{message.entry}">{message.ruleName}</a>{/if}
            {#if elsewhere}· about <a class="hover:text-iris" href="/records/{message.recordType}/{message.recordId}"
                    >{message.recordNumber} {message.recordTitle}</a
                >{/if}
        </div>
        {#if message.trouble}
            <div class="note-wrong">
                {message.trouble} ({counted(message.tries, ['# try', '# tries'])})
                {#if message.status === 'failed' && session.me?.mayEditRules}<button type="button" class="link" onclick={again}
                        >Try again</button
                    >{/if}
            </div>
        {/if}
        {#if open}
            <!-- The server has sanitised it: nothing in it runs. -->
            <div class="letter my-2 rounded-md border border-ruled on-white px-4 py-3">
                {#if message.html}{@html message.html}{:else}<p class="whitespace-pre-wrap">{message.text}</p>{/if}
            </div>
        {/if}
    </div>
</div>
